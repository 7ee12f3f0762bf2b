package ironing.server.choice;

import ironing.core.archive.ContentHash;
import ironing.core.choice.ChoiceAnswer;
import ironing.core.choice.ChoiceAnswer.Found;
import ironing.core.choice.ChoiceQuestion;
import ironing.core.choice.ChoiceQuestion.Wish;
import ironing.core.choice.Statement;
import ironing.core.choice.WhatItBrings;
import ironing.core.version.ModVersion;
import ironing.server.catalogue.Catalogues;
import ironing.server.catalogue.Identities;
import ironing.server.workspace.OpenWorkspace;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Asks the core what a choice brings with it. */
@Component
class Choices {
  /** After this the best so far is given. */
  private static final Duration MOST = Duration.ofSeconds(10);

  private final Catalogues catalogues;
  private final Identities identities;

  Choices(Catalogues catalogues, Identities identities) {
    this.catalogues = catalogues;
    this.identities = identities;
  }

  /**
   * What is asked for.
   *
   * @param missing whether all that is on is to get what it needs
   */
  record Choice(List<Wish> wishes, boolean missing, Set<Statement> givenUp) {}

  /** An answer with all that is needed to put it into words, or to follow it. */
  record Answered(OpenWorkspace open, Choice choice, Candidates candidates, ChoiceAnswer answer) {
    /** Changes when following the answer would do something else. */
    String mark() {
      if (!(answer instanceof Found f)) return "";
      StringBuilder all = new StringBuilder();
      f.members()
          .forEach(
              m -> all.append(m.becomes()).append(' ').append(m.candidate().key()).append('\n'));
      f.off().forEach(o -> all.append("off ").append(o.candidate().key()).append('\n'));
      return ContentHash.of(all.toString().getBytes(StandardCharsets.UTF_8)).substring(0, 32);
    }
  }

  Answered ask(OpenWorkspace open, Choice choice) {
    Candidates candidates = new Candidates(open, catalogues, identities);
    ChoiceAnswer answer =
        WhatItBrings.answer(
            new ChoiceQuestion(
                candidates,
                open.gameVersion().map(ModVersion::of),
                catalogues.defaultVariants(open.workspace()),
                choice.wishes().stream().map(candidates::wishNow).toList(),
                choice.missing(),
                choice.givenUp()),
            MOST);
    return new Answered(open, choice, candidates, answer);
  }
}
