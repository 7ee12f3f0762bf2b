package ironing.server.platform;

import ironing.core.IroningException;
import ironing.server.platform.Codes.Code;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What the codes of errors, wrinkles, remarks and notes mean. */
@RestController
@RequestMapping("/api/codes")
class CodesController {
  /**
   * @param codes by their name
   */
  record CodesView(List<Code> codes) {}

  /** Every code by which the API says what is the matter. */
  @GetMapping
  CodesView all() {
    return new CodesView(List.copyOf(Codes.all()));
  }

  /**
   * What one code means. The type of a problem leads here.
   *
   * @param code as in “code” of the problem
   */
  @GetMapping("/{code}")
  Code one(@PathVariable String code) {
    return Codes.find(code)
        .orElseThrow(
            () ->
                IroningException.of(
                    "not-found",
                    "Code " + code,
                    "There is no such code.",
                    "See /api/codes for all of them."));
  }
}
