/** The commands of the command line by name. Each is loaded when it is called, and nothing that only others use. */
import type { Commands } from './run';
import type { CommandName } from './usage';

export const COMMANDS = {
  check: async (args) => (await import('./commands/check')).command(args),
  analyse: async (args) => (await import('./commands/analyse')).command(args),
  routes: async (args) => (await import('./commands/routes')).command(args),
  walk: async (args) => (await import('./commands/walk')).command(args),
  simulate: async (args) => (await import('./commands/simulate')).command(args),
  audit: async (args) => (await import('./commands/audit')).command(args),
  compare: async (args) => (await import('./commands/compare')).command(args),
  convert: async (args) => (await import('./commands/convert')).command(args),
  verify: async (args) => (await import('./commands/verify')).command(args),
  forecast: async (args) => (await import('./commands/forecast')).command(args),
  backup: async (args) => (await import('./commands/backup')).command(args),
  restore: async (args) => (await import('./commands/restore')).command(args),
} satisfies Record<CommandName, Commands[string]>;
