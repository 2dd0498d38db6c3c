/** A style sheet as the build puts it together, as a text (scripts/build-embed.mjs). */
declare module "*.css" {
  const text: string;
  export default text;
}
