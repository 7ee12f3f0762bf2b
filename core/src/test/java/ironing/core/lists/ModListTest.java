package ironing.core.lists;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.dataformat.csv.CsvMapper;
import com.fasterxml.jackson.dataformat.csv.CsvSchema;
import ironing.core.lists.ModList.Row;
import ironing.core.testkit.Schemas;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class ModListTest {
  private static final Row PLAIN =
      new Row(1, "rope-locker", "Rope Locker", "1.3", true, "Groundwork", "");

  /** Read back by Jackson's CSV reader, which knows nothing of the writer. */
  private static List<Map<String, String>> read(String csv) throws IOException {
    return new CsvMapper()
        .readerForMapOf(String.class)
        .with(CsvSchema.emptySchema().withHeader())
        .<Map<String, String>>readValues(csv)
        .readAll();
  }

  @Test
  void csv_is_written_as_rfc_4180_says() {
    Row odd = new Row(2, "q", "Says \"ahoy\", twice", "2", false, "", "one\ntwo");
    assertThat(ModList.csv(List.of(PLAIN, odd)))
        .isEqualTo(
            "position,mod,name,version,on,section,note\r\n"
                + "1,rope-locker,Rope Locker,1.3,yes,Groundwork,\r\n"
                + "2,q,\"Says \"\"ahoy\"\", twice\",2,no,,\"one\ntwo\"\r\n");
  }

  @Property(tries = 500, seed = "8160")
  void any_text_comes_back_from_csv(@ForAll String name, @ForAll String note) throws IOException {
    List<Map<String, String>> back =
        read(ModList.csv(List.of(new Row(7, "m", name, "1", true, "", note))));
    assertThat(back).hasSize(1);
    assertThat(withoutMark(back.get(0).get("name"))).isEqualTo(name);
    assertThat(withoutMark(back.get(0).get("note"))).isEqualTo(note);
  }

  private static String withoutMark(String cell) {
    return cell.matches("(?s)'[=+\\-@].*") ? cell.substring(1) : cell;
  }

  @Test
  void what_a_spreadsheet_would_run_is_text() throws IOException {
    for (String formula : List.of("=1+1", "+1", "-1", "@SUM(A1)"))
      assertThat(
              read(ModList.csv(List.of(new Row(1, "m", formula, "1", true, "", ""))))
                  .get(0)
                  .get("name"))
          .isEqualTo("'" + formula);
  }

  @Test
  void json_keeps_to_its_schema() {
    assertThat(Schemas.errorsInJson("list", ModList.json("Everyday", List.of(PLAIN)))).isEmpty();
    assertThat(Schemas.errorsInJson("list", "{\"format\":\"ironing/list@1\",\"layers\":[{}]}"))
        .isNotEmpty();
  }

  @Test
  void markdown_keeps_a_cell_a_cell() {
    Row odd = new Row(2, "m", "a|b *c*", "1", true, "", "one\ntwo");
    assertThat(ModList.markdown("Every|day", List.of(odd)))
        .startsWith("# Every\\|day\n")
        .endsWith("| 2 | m | a\\|b \\*c\\* | 1 | yes |  | one<br>two |\n");
  }
}
