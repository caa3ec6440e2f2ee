export {
  type PartRow,
  type StockLotRow,
  type StockMovementRow,
  parts,
  stockLots,
  stockMovements,
} from './stores'
export {
  type DeliveryRow,
  type OfferRow,
  type OldPartRow,
  type OrderLineRow,
  type OrderRow,
  type SupplierRow,
  type VanRow,
  deliveries,
  offers,
  oldParts,
  orderLines,
  orders,
  suppliers,
  vans,
} from './orders'
