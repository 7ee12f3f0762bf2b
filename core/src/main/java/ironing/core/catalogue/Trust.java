package ironing.core.catalogue;

import ironing.core.Problem;
import java.util.Optional;

/**
 * Whether a new state of a catalogue is taken: it must be signed with the key that was kept at the
 * first look, and come after the state that is here.
 *
 * @param key what later states must be signed with; empty where the first was not signed
 * @param sequence of the state that is here
 * @param sha256 of the bytes of its catalogue.json
 */
public record Trust(String key, long sequence, String sha256) {

  /** What came of looking at a state. */
  public sealed interface Verdict {
    /**
     * The state may be taken.
     *
     * @param kept what is believed of the catalogue from now on
     */
    record Taken(Trust kept) implements Verdict {}

    /** The bytes are those of the state that is here. */
    record Same() implements Verdict {}

    /**
     * The state is refused.
     *
     * @param again whether asking once more can help, as where the place is in the middle of a
     *     change
     */
    record Refused(Problem problem, boolean again) implements Verdict {}
  }

  /**
   * Judges a state.
   *
   * @param here what was kept; empty at the first look
   * @param signed the bytes of catalogue.json
   * @param signature the text of catalogue.json.sig; empty where there is no such file
   */
  public static Verdict judge(
      Optional<Trust> here,
      Catalogue found,
      byte[] signed,
      String sha256,
      Optional<String> signature) {
    if (here.isPresent() && here.get().sha256.equals(sha256)) return new Verdict.Same();
    String due = here.map(Trust::key).filter(k -> !k.isEmpty()).orElse(found.key());
    String thing = "“" + found.title() + "”";
    if (!due.isEmpty()) {
      if (!found.key().equals(due)) {
        String said =
            found.key().isEmpty()
                ? "It has no key any more; until now it was signed with the key "
                : "It is signed with the key "
                    + Signature.fingerprint(found.key())
                    + ", until now it was ";
        return refuse(
            "catalogue-key-other",
            thing,
            said + Signature.fingerprint(due) + ".",
            "What was known of it stays. Ask its keeper whether the key has changed, and trust the"
                + " new one if it has.",
            false);
      }
      if (signature.isEmpty() || !Signature.holds(due, signed, signature.get())) {
        return refuse(
            "catalogue-signature-wrong",
            thing,
            signature.isEmpty()
                ? "There is no signature beside catalogue.json."
                : "The signature beside catalogue.json is not its own.",
            "What was known of it stays. Look again later; if it remains so, tell its keeper.",
            true);
      }
    }
    String next = found.nextKey().isEmpty() ? due : found.nextKey();
    if (here.isEmpty()) return new Verdict.Taken(new Trust(next, found.sequence(), sha256));
    if (found.sequence() < here.get().sequence) {
      return refuse(
          "catalogue-sequence-lower",
          thing,
          "It has the sequence "
              + found.sequence()
              + ", and the state that is here has "
              + here.get().sequence
              + ": it is an older one.",
          "What was known of it stays. Tell its keeper if it remains so.",
          false);
    }
    if (found.sequence() == here.get().sequence) {
      return refuse(
          "catalogue-sequence-same",
          thing,
          "It has changed, but still has the sequence " + found.sequence() + ".",
          "What was known of it stays. Tell its keeper: each state needs a higher sequence.",
          false);
    }
    return new Verdict.Taken(new Trust(next, found.sequence(), sha256));
  }

  private static Verdict refuse(
      String code, String thing, String reason, String remedy, boolean again) {
    return new Verdict.Refused(new Problem(code, thing, reason, remedy), again);
  }
}
