/** A trip to the yard, and its receipt. */
export const TripPage = () => import('./TripPage.vue')
export const ReceiptPage = () => import('./ReceiptPage.vue')
export { NOTHING_SAID } from './useTrip'
