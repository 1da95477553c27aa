/**
 * Results of the open project in the page: views of nodes by revision, as the planner posts them. Screens watch what they
 * show (`usePlan`) and say when it is not fresh.
 */
export { planner, tryOut } from './planner'
export { usePlan, usePlans, useFailures } from './use-plan'
