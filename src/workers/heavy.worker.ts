import { doTask, type Task } from "./tasks";

/** The entry of a thread for heavy tasks. */
export default function heavy({ name, given }: Task): Promise<unknown> {
  return doTask(name, given);
}
