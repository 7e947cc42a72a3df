import type { Part } from '../api'

/** Parts by the name of their group, groups in the order in which they first appear. */
export function inGroups(parts: Part[]): Map<string, Part[]> {
  const groups = new Map<string, Part[]>()
  for (const part of parts) {
    const group = groups.get(part.group)
    if (group) group.push(part)
    else groups.set(part.group, [part])
  }
  return groups
}
