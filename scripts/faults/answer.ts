/** What a process answered; null where it did not want to, or was killed before all of it was said. */
export async function answerOf<T>(asked: Promise<Response>): Promise<T | null> {
  try {
    const response = await asked;
    return response.ok ? ((await response.json()) as T) : null;
  } catch {
    return null;
  }
}
