package ironing.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import ironing.core.IroningException;
import ironing.core.testkit.Schemas;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class CatalogueTest {
  private static final String WHOLE =
      """
      { "format": "ironing/catalogue@1", "id": "harbour-board", "title": "Harbour Board",
        "games": ["skerry-line"], "sequence": 4711, "at": "2026-11-29T10:00:00Z",
        "expires": "2026-12-13T10:00:00Z",
        "parts": [ { "href": "parts/a.jsonl", "sha256": "%s", "size": 12 } ],
        "findings": { "href": "f.jsonl", "sha256": "%s", "size": 1 },
        "hosts": [ "https://files.example.org" ], "defaultVariant": { "hull": "small" },
        "key": "AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA=", "nextKey": "" }
      """
          .formatted("a".repeat(64), "b".repeat(64));

  @Test
  void a_whole_one_is_read() {
    assertThat(Schemas.errorsInJson("catalogue", WHOLE)).isEmpty();
    Catalogue c = Catalogue.read(bytes(WHOLE));
    assertThat(c.id()).isEqualTo("harbour-board");
    assertThat(c.sequence()).isEqualTo(4711);
    assertThat(c.expires()).contains(Instant.parse("2026-12-13T10:00:00Z"));
    assertThat(c.parts()).hasSize(1);
    assertThat(c.parts().get(0).size()).isEqualTo(12);
    assertThat(c.findings()).isPresent();
    assertThat(c.defaultVariant()).containsEntry("hull", "small");
  }

  @Test
  void every_mistake_is_named_with_its_place() {
    String wrong =
        WHOLE
            .replace("4711", "-1")
            .replace("\"harbour-board\"", "\"Harbour\"")
            .replace("2026-12-13T10:00:00Z", "tomorrow")
            .replace("a".repeat(64), "ABC")
            .replace("AAAA=", "AAA=");
    assertThat(Schemas.errorsInJson("catalogue", wrong)).isNotEmpty();
    assertThat(mistakes(wrong))
        .hasSize(5)
        .anyMatch(m -> m.contains("/id is no id"))
        .anyMatch(m -> m.contains("/sequence is no whole number"))
        .anyMatch(m -> m.contains("/expires is no time"))
        .anyMatch(m -> m.contains("/parts/0/sha256 is no SHA-256"))
        .anyMatch(m -> m.contains("/key is not the base64 of 32 bytes"));
  }

  @Test
  void what_is_no_document_is_refused() {
    assertThat(mistakes("")).isNotEmpty();
    assertThat(mistakes("[]")).anyMatch(m -> m.contains("is no JSON object"));
    assertThat(mistakes("<!doctype html><title>Not found</title>"))
        .anyMatch(m -> m.contains("is no JSON"));
    assertThat(mistakes(WHOLE + "{}")).anyMatch(m -> m.contains("is no JSON"));
    assertThat(mistakes(WHOLE.replaceFirst("\\{", "{\"id\":\"x\",")))
        .as("a member that is there twice")
        .anyMatch(m -> m.contains("is no JSON"));
    assertThat(mistakes("{\"a\":" + "[".repeat(70) + "]".repeat(70) + "}"))
        .as("deeper than 64")
        .anyMatch(m -> m.contains("is no JSON"));
    byte[] latin = WHOLE.replace("Harbour Board", "Håfn").getBytes(StandardCharsets.ISO_8859_1);
    assertThat(refused(latin)).anyMatch(m -> m.contains("is no UTF-8"));
    assertThat(refused(new byte[Catalogue.LARGEST + 1])).anyMatch(m -> m.contains("16 MiB"));
  }

  @Property(tries = 3_000, seed = "25")
  void odd_bytes_are_read_or_refused_and_nothing_else(@ForAll long seed) {
    Random random = new Random(seed);
    byte[] odd = bytes(WHOLE);
    for (int i = 1 + random.nextInt(3); i > 0; i--) {
      int at = random.nextInt(odd.length);
      switch (random.nextInt(3)) {
        case 0 -> odd[at] = (byte) random.nextInt(256);
        case 1 -> odd = Arrays.copyOf(odd, at + 1);
        default -> {
          int to = Math.min(odd.length, at + random.nextInt(20));
          byte[] less = Arrays.copyOf(odd, odd.length - (to - at));
          System.arraycopy(odd, to, less, at, odd.length - to);
          odd = less.length == 0 ? odd : less;
        }
      }
    }
    try {
      Catalogue.read(odd);
    } catch (IroningException e) {
      assertThat(e.problems()).allMatch(p -> p.code().equals("catalogue-invalid"));
    }
  }

  private static List<String> mistakes(String text) {
    return refused(bytes(text));
  }

  private static List<String> refused(byte[] bytes) {
    IroningException e = catchThrowableOfType(IroningException.class, () -> Catalogue.read(bytes));
    assertThat(e).isNotNull();
    return e.problems().stream().map(p -> p.reason()).toList();
  }

  private static byte[] bytes(String text) {
    return text.getBytes(StandardCharsets.UTF_8);
  }
}
