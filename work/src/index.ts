export * from './sheets/machines.js';
export * from './ladder/campaign.js';
export * from './ladder/nextRung.js';
export * from './ladder/reasons.js';
export { eventsOf, levelOf } from './ladder/events.js';
export { isPast, oldNews, type OldNews } from './ladder/oldNews.js';
export { cardSince } from './judging/cardSince.js';
export { doable, onMachine } from './judging/doable.js';
export { lastWords, methodsApart, type Apart } from './ladder/methods.js';
export { spreadBefore, spreadsBefore } from './judging/spread.js';
export { staleBy } from './ladder/standing.js';
export * from './ladder/rungs.js';
export * from './ladder/handRungs.js';
export * from './notebook/doneMoves.js';
export * from './judging/moves.js';
export * from './judging/crossed.js';
export * from './judging/headWeight.js';
export * from './judging/jumps.js';
export * from './notebook/keyOf.js';
export { ladderFacts } from './ladder/overdue.js';
export type * from './ladder/overdue.js';
export * from './judging/pivot.js';
export * from './register/register.js';
export * from './register/log.js';
export * from './register/scope.js';
export * from './notebook/things.js';
export * from './sheets/slide.js';
export * from './judging/order.js';
export * from './ladder/othersSay.js';
export * from './sheets/ownPlaces.js';
export * from './judging/alongBed.js';
export * from './judging/nearer.js';
export * from './judging/tenTimes.js';
export * from './kit/pile.js';
export * from './kit/wentIn.js';
export * from './sheets/facts.js';
export * from './ladder/known.js';
export * from './ladder/ways.js';
export * from './board/board.js';
export * from './sheets/senses.js';
export * from './sheets/sheet.js';
export { answerLines, type AnswerLine } from './said/moveAnswer.js';
export { openSupports, supportsFile, type OpenedSupports } from './sheets/openedMove.js';
export * from './sheets/openedSheet.js';
export * from './sheets/heads.js';
export { placesLeft, plannedSlots, withReadings, type BenchSlot } from './sheets/slots.js';
export * from './sheets/door.js';
export * from './kit/kit.js';
export * from './kit/drawer.js';
export * from './sheets/limits.js';
export * from './scraping/faults.js';
export * from './scraping/desk.js';
export { type Forecast } from './scraping/forecast.js';
export { dayOfEvening, EVENING_PAUSE, eveningUpTo, eveningsOf, minutesOf, type Dated, type Evening } from './notebook/evenings.js';
export { folded } from './notebook/folded.js';
export { findablesOf, found, type Findable, type FoundKind, type Indexed } from './board/finder.js';
export { compared, type Compared, type Seen, type Side } from './judging/compare.js';
export { noteLines, ticked, tickedOnly, wordsAlone, type NoteLine } from './notebook/todos.js';
export {
  clockOn,
  dayBegins,
  daysAfter,
  daysBetween,
  weekdayOf,
  shopClock,
  shopDate,
  shopDay,
  shopShortDate,
  shopTime,
  timeInShop,
} from './notebook/dates.js';
export { counts, ruling } from './notebook/ruling.js';
export { learnedPasses, type LearnedPass, type PassDepth } from './scraping/hand.js';
export type { DeskZone } from './scraping/left.js';
export type { DeskStep, Reminder } from './scraping/steps.js';
export { endAAtRight, endsEvening, middleOf, takesBites } from './scraping/entries.js';
export type { DeskCode, DeskNote, Turned } from './scraping/notes.js';
export * from './scraping/plan.js';
export * from './scraping/mates.js';
export * from './scraping/words.js';
export * from './story/index.js';
export { changesOf } from './notebook/changes.js';
export { driftOf, type Drift } from './notebook/drift.js';
export * from './stripdown/assembly.js';
export * from './stripdown/foundShims.js';
export * from './stripdown/needs.js';
export * from './stripdown/partWords.js';
export { jobRun, layOutJob, planJob, type LaidOut } from './planning/planJob.js';
export { arranged, circleWith, shifted, type Shifted } from './planning/arranged.js';
export { jobItemsBy } from './planning/jobItems.js';
export { MOST_ROOM, roomFor, type Room } from './planning/room.js';
export { everyTyped, everyWords, ownDone } from './planning/recurring.js';
export { jobOf, planToSchedule, type JobRef, type PlanToSchedule } from './planning/jobOf.js';
export { howGood, knownToDo, plannedPeople, type Firsts, type MachineRecords, type ShopRecords } from './planning/known.js';
export { lookFaults, looksAt, outByLook, roughExample, roughlyOut, toLookAt, type ToLookAt } from './planning/roughLooks.js';
export { moveMinutes, setUpMinutes, WORK_PAUSE, workedMinutes } from './planning/timed.js';
export { byDay, checksDue, kitDue, ownDue, partsDue } from './planning/due.js';
export { curedByMetal, hoursOfWork, threeAnswers, type Answer, type AnswerCode } from './planning/answers.js';
export { helps, type Help, type HelpCode } from './planning/helps.js';
export { minutesTyped, minutesWords } from './planning/minutesTold.js';
export { tonight, type Tonight } from './planning/tonight.js';
export { durationsIn, type Timing, type Work } from './planning/durations.js';
export { fingerprintText, type HashedFile } from './archive/fingerprintText.js';
export { byName, Mentions } from './archive/mentions.js';
export { remarksOf } from './archive/remarksOf.js';
export { surveyPaths, type ArchivedText } from './archive/surveyPaths.js';
export { differsWords, moveRecord, moveTold, type MoveTold } from './story/moveTold.js';
export { reportOf, type ReportFacts, type ToldRound } from './report/report.js';
export type { Block, ProfileChart, Report, TableRow, ZoneChart } from './report/blocks.js';
export type { GlyphOf } from './report/glyphOf.js';
export type { PaperUnits } from './report/inUnits.js';
export { readingSheet, type SheetFacts } from './report/readingSheet.js';
export { groupedBy } from './notebook/groupedBy.js';
export { bentBy, withGhosts } from './pictures/bent.js';
