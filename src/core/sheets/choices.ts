/** How many entries one message of a device may hold; a device with more sends them in portions. */
export const mostEntriesAtOnce = 500
