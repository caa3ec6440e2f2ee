// What changes the shape of the database can also be asked from a command line, which nobody here does: a good
// part of what it takes to open a database went into loading that.
export class CommandLineParser {}
export class CommandLineAction {}
