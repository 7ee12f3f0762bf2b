package ironing.server.platform;

import io.swagger.v3.oas.annotations.Hidden;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;

/** The page has an address for each of its views; all of them are served by its one document. */
@Controller
@Hidden
class PageAddresses {
  @GetMapping({
    "/workspaces",
    "/workspaces/{workspace:\\d+}",
    "/workspaces/{workspace:\\d+}/{view:[a-z-]+}",
    "/workspaces/{workspace:\\d+}/{view:[a-z-]+}/{*rest}"
  })
  String page() {
    return "forward:/index.html";
  }
}
