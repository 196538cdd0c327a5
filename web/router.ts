import { QUANTITIES } from '../core/calibration/stale';
import { createRouter, createWebHistory } from 'vue-router';
import OrdersPage from './pages/orders/OrdersPage.vue';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/orders' },
    { path: '/orders', name: 'orders', component: OrdersPage },
    { path: '/orders/:id(\\d+)', name: 'order', component: () => import('./pages/order/OrderPage.vue') },
    {
      path: '/orders/:id(\\d+)/applying',
      name: 'applying',
      component: () => import('./pages/applying/ApplyingPage.vue'),
    },
    {
      path: '/orders/:id(\\d+)/fitting-map',
      name: 'fitting',
      component: () => import('./pages/fitting/FittingPage.vue'),
    },
    {
      path: '/cutters',
      name: 'cutters',
      component: () => import('./pages/cutters/CuttersPage.vue'),
    },
    { path: '/cutters/:id', name: 'cutter', component: () => import('./pages/cutter/CutterPage.vue') },
    { path: '/machines', name: 'machines', component: () => import('./pages/machines/MachinesPage.vue') },
    {
      path: `/machines/:id/:section(${QUANTITIES.join('|')})?`,
      name: 'machine',
      component: () => import('./pages/machines/MachinesPage.vue'),
    },
    { path: '/floor', name: 'floor', component: () => import('./pages/floor/FloorPage.vue') },
    { path: '/usage', name: 'usage', component: () => import('./pages/usage/UsagePage.vue') },
    { path: '/people', name: 'people', component: () => import('./pages/people/PeoplePage.vue') },
    { path: '/materials', name: 'materials', component: () => import('./pages/materials/MaterialsPage.vue') },
    {
      path: '/materials/to-order',
      name: 'to-order',
      component: () => import('./pages/materials/ToOrderPage.vue'),
    },
    {
      path: '/materials/:film/recipes',
      name: 'recipes',
      component: () => import('./pages/recipes/RecipesPage.vue'),
    },
    { path: '/:page(.*)*', redirect: '/orders' },
  ],
});
