export { FastenerMap } from './ModelFasteners'
