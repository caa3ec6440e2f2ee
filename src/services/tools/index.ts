export { getTools, listWrenches, retireTool, saveTool, toolBookings } from './tools'
