/** How the server is: filled in with the backups. */
export function ServerState() {
  return null;
}
