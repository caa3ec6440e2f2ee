export { flowVerdict, hydraulicKw, nozzleFlow, type FlowReading, type FlowVerdict } from './nozzle'
