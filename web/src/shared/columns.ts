/** A column of a list. */
export interface Column {
  name: string
  title: string
  /** Figures stand to the right. */
  right?: boolean
  /** Left out where there is no room. */
  roomy?: boolean
  /** Said to those who cannot see what its cells are. */
  unseen?: boolean
  /** Classes of its cells. */
  look?: string
}
