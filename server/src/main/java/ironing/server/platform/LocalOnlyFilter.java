package ironing.server.platform;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Set;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Lets in only what this machine's own pages and scripts ask. A page from elsewhere can make a
 * browser send requests to 127.0.0.1: it is told apart by its Origin, and a name rebound to
 * 127.0.0.1 by its Host.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class LocalOnlyFilter extends OncePerRequestFilter {
  private static final Set<String> NAMES = Set.of("127.0.0.1", "localhost", "[::1]");
  private static final String POLICY =
      "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self'; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";

  @Override
  protected void doFilterInternal(
      HttpServletRequest request, HttpServletResponse response, FilterChain chain)
      throws ServletException, IOException {
    protect(response, request.getRequestURI());
    String host = request.getHeader("Host");
    String origin = request.getHeader("Origin");
    if (host == null || !isOurs(host, request.getLocalPort())) {
      refuse(response, "Host", host);
    } else if (origin != null
        && !(origin.startsWith("http://")
            && isOurs(origin.substring("http://".length()), request.getLocalPort()))) {
      refuse(response, "Origin", origin);
    } else if ("cross-site".equals(request.getHeader("Sec-Fetch-Site"))) {
      refuse(response, "Sec-Fetch-Site", "cross-site");
    } else if ((request.getRequestURI() + "?" + request.getQueryString()).contains("%00")) {
      unfit(response, 400, "The address holds the character U+0000. Leave it out.");
    } else if (String.valueOf(request.getContentType()).contains("*")) {
      unfit(response, 415, "The Content-Type is no type. Name the one that the body is of.");
    } else {
      chain.doFilter(request, response);
    }
  }

  /** Sets the headers that every answer carries. */
  static void protect(HttpServletResponse response, String path) {
    response.setHeader("Content-Security-Policy", POLICY);
    response.setHeader("X-Content-Type-Options", "nosniff");
    response.setHeader("Referrer-Policy", "no-referrer");
    response.setHeader("Cross-Origin-Resource-Policy", "same-origin");
    response.setHeader("Cache-Control", cacheable(path));
  }

  // An ETag of the API is the revision of the order, and an answer holds more than the order: none
  // may be kept. A built script has its content's hash in its name; the page naming it has not.
  private static String cacheable(String path) {
    if (path.startsWith("/api/")) return "no-store";
    return path.startsWith("/assets/") ? "public, max-age=31536000, immutable" : "no-cache";
  }

  private static boolean isOurs(String hostAndPort, int port) {
    return NAMES.stream().anyMatch(n -> hostAndPort.equals(n + ":" + port));
  }

  private static void unfit(HttpServletResponse response, int status, String why)
      throws IOException {
    response.setStatus(status);
    response.setContentType("application/problem+json");
    response.setCharacterEncoding("UTF-8");
    response
        .getWriter()
        .write(
            "{\"type\":\"/api/codes/request-unfit\",\"title\":\"A request that cannot be read\",\"status\":"
                + status
                + ",\"code\":\"request-unfit\",\"detail\":\""
                + why
                + "\"}");
  }

  private static void refuse(HttpServletResponse response, String header, String value)
      throws IOException {
    response.setStatus(HttpServletResponse.SC_FORBIDDEN);
    response.setContentType("application/problem+json");
    String shown = String.valueOf(value).replaceAll("[^A-Za-z0-9.:/_-]", "?");
    response
        .getWriter()
        .write(
            "{\"type\":\"/api/codes/request-refused\",\"title\":\"Not from this machine\",\"status\":403,\"code\":\"request-refused\",\"detail\":\"The request’s "
                + header
                + " is “"
                + shown
                + "”. Open Ironing at http://127.0.0.1 on the machine where it runs.\"}");
  }
}
