package ironing.server.formats;

import ironing.server.platform.MayBeAbsent;
import java.util.List;
import java.util.Objects;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Formats of plugins that somebody else has made. */
@RestController
@RequestMapping("/api/formats")
class FormatsController {
  private final FormatJars jars;

  FormatsController(FormatJars jars) {
    this.jars = jars;
  }

  /**
   * A jar with formats of plugins.
   *
   * @param sizeBytes 0 where the file lies in the folder no more
   * @param confirmed whether the user wants it in use
   * @param formats by what a game.yaml names them; none before it is confirmed
   * @param why it cannot be used; absent where it can, or is not confirmed
   */
  record FormatJarView(
      String name,
      String sha256,
      long sizeBytes,
      boolean confirmed,
      List<String> formats,
      @MayBeAbsent String why) {
    static FormatJarView of(FormatJars.Jar j) {
      return new FormatJarView(
          j.name(), j.sha256(), j.sizeBytes(), j.confirmed(), j.ids(), j.why().orElse(null));
    }
  }

  /**
   * @param folder in which jars are looked for
   * @param jars those in it by name, then those that were confirmed and lie there no more
   */
  record FormatsView(String folder, List<FormatJarView> jars) {}

  /**
   * @param sha256 of the whole jar, as the list has it
   */
  record ConfirmedJar(String sha256) {
    ConfirmedJar {
      Objects.requireNonNull(sha256, "sha256");
    }
  }

  /** The jars in the folder formats of the home. Nothing in them is run for this. */
  @GetMapping
  FormatsView formats() {
    return new FormatsView(
        jars.folder().toString(), jars.all().stream().map(FormatJarView::of).toList());
  }

  /** Takes a jar into use: its code can do all that Ironing can. */
  @PostMapping("/confirm")
  FormatJarView confirmFormat(@RequestBody ConfirmedJar body) {
    return FormatJarView.of(jars.confirm(body.sha256()));
  }

  /** Takes a jar out of use. The file in the folder stays. */
  @DeleteMapping("/{sha256}")
  ResponseEntity<Void> forgetFormat(@PathVariable String sha256) {
    jars.forget(sha256);
    return ResponseEntity.noContent().build();
  }
}
