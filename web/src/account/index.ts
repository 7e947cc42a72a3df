/** The way in, and the account. */
import { defineAsyncComponent } from 'vue'

export const AccountPage = () => import('./AccountPage.vue')
export const SignInPage = () => import('./SignInPage.vue')
export const SignInAgain = defineAsyncComponent(() => import('./SignInAgain.vue'))
