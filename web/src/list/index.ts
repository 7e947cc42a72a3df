/** What to buy. */
export { default as TakeAway } from './TakeAway.vue'

export const ShoppingPage = () => import('./ShoppingPage.vue')
