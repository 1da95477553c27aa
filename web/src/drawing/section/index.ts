export { SectionPanel } from './section-panel'
