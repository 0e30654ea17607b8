/** What every error of Pallmist extends, alone: for programs that have to begin quickly. */
export { PallmistError } from '@pallmist/address';
