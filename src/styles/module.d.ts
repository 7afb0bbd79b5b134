/** CSS Modules as TypeScript sees them. */
declare module '*.module.css' {
  const classes: Record<string, string>;
  export default classes;
}
