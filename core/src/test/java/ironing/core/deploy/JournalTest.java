package ironing.core.deploy;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.deploy.Journal.Kind;
import ironing.core.deploy.Journal.Move;
import ironing.core.deploy.LaidOut.How;
import ironing.core.deploy.LaidOut.Item;
import ironing.core.deploy.LaidOut.Stamp;
import ironing.core.testkit.Schemas;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** What is written into a game folder is as its schema in docs/formats says, and is read again. */
class JournalTest {
  private static final String SHA =
      // of "abc", FIPS 180-4 by RFC 6234, section 8.5
      "ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad";
  private static final Item REPLACING =
      new Item("data/a.png", SHA, 3, 7, "Fog", How.LINK, Optional.of(SHA));
  private static final Item NEW =
      new Item(
          "data/ü.png",
          SHA,
          3,
          0,
          "Ironing",
          How.COPY,
          Optional.empty(),
          Optional.of(new Stamp(1_767_225_600_000_000_001L, 7)));
  private static final LaidOut LAID_OUT =
      new LaidOut(
          "2026-01-01T00:00:00Z",
          Map.of(REPLACING.path(), REPLACING, NEW.path(), NEW),
          List.of("data/new"),
          Optional.of(4L));

  private static String text(LaidOut note) {
    return new String(LaidOutText.write(note, 0), UTF_8);
  }

  @Test
  void the_note_of_what_is_deployed() {
    assertThat(Schemas.errorsInJson("laid-out", text(LAID_OUT))).isEmpty();
    assertThat(LaidOutText.read(LaidOutText.write(LAID_OUT, 0)).note()).isEqualTo(LAID_OUT);
  }

  @Test
  void a_change_of_the_note() {
    NoteChange change =
        new NoteChange(
            3,
            "2026-01-01T00:00:00Z",
            Optional.of(4L),
            Optional.of("a/1"),
            List.of(REPLACING, NEW),
            List.of("data/gone.png"),
            List.of("data/new"),
            List.of("data/old"));
    String text = new String(LaidOutText.write(change), UTF_8);
    assertThat(Schemas.errorsInJson("laid-out-change", text)).isEmpty();
    assertThat(LaidOutText.readChange("3.json", text.getBytes(UTF_8))).isEqualTo(change);
    String whole = new String(LaidOutText.write(LAID_OUT, 3), UTF_8);
    assertThat(Schemas.errorsInJson("laid-out", whole)).isEmpty();
    assertThat(LaidOutText.read(whole.getBytes(UTF_8)).through()).isEqualTo(3);
  }

  @Test
  void the_journal_of_a_change() throws Exception {
    Journal journal =
        new Journal(
            List.of(
                new Move(Kind.ASIDE, "data/a.png", ".ironing/kept/1"),
                new Move(Kind.IN, ".ironing/staged/1", "data/a.png")),
            List.of("data/new"),
            List.of("data/new"),
            List.of());
    assertThat(Schemas.errorsInJson("journal", new String(journal.toBytes(), UTF_8))).isEmpty();
    assertThat(Journal.parse(journal.toBytes())).isEqualTo(journal);
  }

  @Test
  void the_schemas_refuse_what_is_not_of_their_format() {
    String other = text(LAID_OUT).replace(LaidOut.FORMAT, "ironing/laid-out@9");
    assertThat(Schemas.errorsInJson("laid-out", other)).isNotEmpty();
    assertThat(Schemas.errorsInJson("laid-out", text(LAID_OUT).replace(SHA, "abc"))).isNotEmpty();
    assertThat(Schemas.errorsInJson("journal", "{\"format\": \"ironing/journal@2\"}")).isNotEmpty();
  }
}
