import { commonTexts } from "../../../texts/en/common";
import { conversationTexts } from "../../../texts/en/conversation";
import type { Say } from "../../../texts/say";
import type { AppointmentView } from "../../server/conversation/appointment-view.server";
import type { Message } from "../../server/conversation/conversation-view.server";
import { useSay } from "../../ui/texts/use-say";

/** What a message carries for the calendar. */
export function Appointments({ message }: { message: Message }) {
  return message.appointments.map((appointment) => (
    <AppointmentCard key={`${appointment.head} ${appointment.summary} ${appointment.when}`} appointment={appointment} />
  ));
}

// An invitation, an answer to one, or a cancellation.
function AppointmentCard({ appointment }: { appointment: AppointmentView }) {
  const say = useSay(conversationTexts, commonTexts);
  const { head, summary, when, place, organiser, answers, invited, more, isCancelled } = appointment;
  return (
    <section
      aria-label={`${head}: ${summary}`}
      className="mt-2 max-w-[62ch] rounded-control border border-rule px-3.5 py-2.5"
    >
      <p className="text-sm text-soft">{head}</p>
      <p className={`font-semibold ${isCancelled ? "line-through" : ""}`}>{summary}</p>
      <dl className="mt-1 grid grid-cols-[auto_1fr] gap-x-3 gap-y-0.5 text-sm">
        <Line name={say("conversation.when")} words={when} />
        {place !== "" && <Line name={say("conversation.where")} words={place} />}
        {organiser !== null && <Line name={say("conversation.askedBy")} words={organiser} />}
        {invited.length > 0 && <Line name={say("conversation.asked")} words={named(say, invited, more)} />}
        {answers.length > 0 && <Line name={say("common.answer")} words={named(say, answers, more)} />}
      </dl>
    </section>
  );
}

function named(say: Say<typeof conversationTexts>, people: readonly string[], more: number): string {
  const shown = people.slice(0, SHOWN).join(", ");
  const left = more + people.length - SHOWN;
  return left > 0 ? say("conversation.andMore", { shown, left }) : shown;
}

const SHOWN = 8;

function Line({ name, words }: { name: string; words: string }) {
  return (
    <>
      <dt className="text-soft">{name}</dt>
      <dd className="min-w-0 wrap-anywhere">{words}</dd>
    </>
  );
}
