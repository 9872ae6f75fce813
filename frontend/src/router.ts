import { createRouter, createWebHistory } from 'vue-router'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'shop', component: () => import('./views/ShopView.vue') },
    { path: '/new', name: 'new', component: () => import('./views/NewBuildView.vue') },
    { path: '/tools', name: 'tools', component: () => import('./views/ToolsView.vue') },
    { path: '/builds/:build', name: 'build', component: () => import('./views/StepView.vue'), props: true },
    {
      path: '/builds/:build/steps/:step',
      name: 'step',
      component: () => import('./views/StepView.vue'),
      props: true,
    },
    {
      path: '/builds/:build/gate',
      name: 'gate',
      component: () => import('./views/GateView.vue'),
      props: true,
    },
    { path: '/builds/:build/log', name: 'log', component: () => import('./views/LogView.vue'), props: true },
    {
      path: '/builds/:build/plan',
      name: 'plan',
      component: () => import('./views/PlanView.vue'),
      props: true,
    },
    {
      path: '/builds/:build/hunt',
      name: 'hunt',
      component: () => import('./views/HuntView.vue'),
      props: true,
    },
    {
      path: '/builds/:build/limits',
      name: 'limits',
      component: () => import('./views/LimitsView.vue'),
      props: true,
    },
    { path: '/builds/:build/off', name: 'off', component: () => import('./views/OffView.vue'), props: true },
    {
      path: '/builds/:build/bags',
      name: 'bags',
      component: () => import('./views/BagsView.vue'),
      props: true,
    },
    {
      path: '/builds/:build/back',
      name: 'back',
      component: () => import('./views/RebuildView.vue'),
      props: true,
    },
    {
      path: '/builds/:build/load',
      name: 'support',
      component: () => import('./views/SupportView.vue'),
      props: true,
    },
    {
      path: '/builds/:build/findings',
      name: 'findings',
      component: () => import('./views/FindingsView.vue'),
      props: true,
    },
    {
      path: '/builds/:build/parts',
      name: 'parts',
      component: () => import('./views/PartsView.vue'),
      props: true,
    },
    {
      path: '/builds/:build/parts/:need',
      name: 'arrival',
      component: () => import('./views/ArrivalView.vue'),
      props: true,
    },
    { path: '/evenings', name: 'evenings', component: () => import('./views/EveningsView.vue') },
    { path: '/sums', name: 'sums', component: () => import('./views/SumsView.vue') },
    { path: '/phones', name: 'phones', component: () => import('./views/PhonesView.vue') },
    { path: '/pair', name: 'pair', component: () => import('./views/PairView.vue') },
    { path: '/:rest(.*)*', name: 'lost', component: () => import('./views/LostView.vue') },
  ],
})
