/** What every place uses: cells, dialogs, lists, figures and words. */
import { defineAsyncComponent } from 'vue'

export { default as AlreadyCut } from './AlreadyCut.vue'
export { default as CautionList } from './CautionList.vue'
export { default as ChangeLine } from './ChangeLine.vue'
export { default as ChoiceSelect } from './ChoiceSelect.vue'
export { default as ChoiceToggle } from './ChoiceToggle.vue'
export { default as EditableCell } from './EditableCell.vue'
export { default as EffectOfSize } from './EffectOfSize.vue'
export { default as FormDialog } from './FormDialog.vue'
export { default as HeldPage } from './HeldPage.vue'
export { default as KindSwatch } from './KindSwatch.vue'
export { default as LeafTabs } from './LeafTabs.vue'
export { default as LengthText } from './LengthText.vue'
export { default as MenuOpener } from './MenuOpener.vue'
export { default as NamesOffered } from './NamesOffered.vue'
export { default as NewRow } from './NewRow.vue'
export { default as NoticeLine } from './NoticeLine.vue'
export { default as PageTurner } from './PageTurner.vue'
export { default as PlainDialog } from './PlainDialog.vue'
export { default as RuledTable } from './RuledTable.vue'
export { default as SectionText } from './SectionText.vue'
export { default as SizeCells } from './SizeCells.vue'
export { default as TallyLine } from './TallyLine.vue'
export { default as ValueText } from './ValueText.vue'
export { counted } from './counted'
export { day, dayAndTime } from './dates'
export { keptOnDevice, type Kept, type Subject } from './onDevice'
export { AT_THE_DESK, keysOpen, SHORTCUTS } from './shortcuts'
export { isElsewhere, isTyping } from './typing'
export { useCells } from './useCells'
export { FORMULA_NAMES, useCompletion } from './useCompletion'
export { useDrafts } from './useDrafts'
export { useHappened } from './useHappened'
export { useSearchedPage } from './useSearchedPage'
export { useSizedCells } from './useSizedCells'

// What is not in view at first comes when it is wanted.
export const FilesMenu = defineAsyncComponent(() => import('./FilesMenu.vue'))
export const NowherePage = () => import('./NowherePage.vue')

/** Forgets what this device keeps of a builder. */
export async function forgetSeen() {
  await (await import('./onDevice')).forgetSeen()
}
