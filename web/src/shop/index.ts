/** In the shop: one set-up at a time. */
export const ShopPage = () => import('./ShopPage.vue')
