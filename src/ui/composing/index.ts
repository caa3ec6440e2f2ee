export { WhoItTakes } from './WhoItTakes'
