export { INVITED_AS, lesser, may, RIGHTS, ROLE_WORDS, ROLES, type Right, type Role } from './roles';
export { mentionedIn } from './mentions';
