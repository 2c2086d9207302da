/** The door of the cards. */
export { type Card, rowCard } from "./card";
