/** The entry of a thread that checks passwords and PINs. */
export { hashing as default } from "./hashing";
