export { can, type Right, type Role, rights, roles } from '@yosegi/core/people';
