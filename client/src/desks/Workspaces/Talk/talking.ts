import type { Schemas } from "../../../api/client";

type Message = Schemas["TalkMessage"];

/** Why somebody does not write in a place, as it is said to them. */
export const cantWords: Record<Schemas["CantTalk"], string> = {
  Archived: "The class is archived: nobody writes in it any more.",
  Closed: "This place is closed: nobody writes in it for now.",
  StaffOnly: "Your teachers write here; you read.",
  OtherGroup: "One group writes here; you read.",
  ReadsOnly: "You are set to read only. Ask your teacher.",
  ClassReadsOnly: "For now the class only reads.",
};

/** A message with what answers it. */
export interface Thread {
  message: Message;
  answers: Message[];
  /** It answers one that is not among those shown. */
  answersEarlier: boolean;
}

/** Messages in the order in which they were written, answers under what they answer; an answer to an answer stands beside it. */
export function inThreads(messages: readonly Message[]): Thread[] {
  const at = new Map<number, Thread>();
  const threads: Thread[] = [];
  for (const message of messages) {
    const above = message.answers == null ? undefined : at.get(message.answers);
    if (above) {
      above.answers.push(message);
      at.set(message.id, above);
    } else {
      const thread = { message, answers: [], answersEarlier: message.answers != null };
      at.set(message.id, thread);
      threads.push(thread);
    }
  }
  return threads;
}
