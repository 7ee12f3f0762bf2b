package ironing.server.game;

import ironing.core.IroningException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.HandlerMapping;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * Every address of a workspace is one of a workspace that is there, whatever its operation asks
 * next.
 */
@Configuration
class KnownWorkspaces implements WebMvcConfigurer, HandlerInterceptor {
  private final WorkspaceMapper db;
  private final Set<Long> known = ConcurrentHashMap.newKeySet();

  KnownWorkspaces(WorkspaceMapper db) {
    this.db = db;
  }

  @Override
  public void addInterceptors(InterceptorRegistry registry) {
    registry.addInterceptor(this).addPathPatterns("/api/workspaces/**");
  }

  /** To call when one is no more. */
  void forget(long workspace) {
    known.remove(workspace);
  }

  @Override
  public boolean preHandle(
      HttpServletRequest request, HttpServletResponse response, Object handler) {
    Object variables = request.getAttribute(HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE);
    Object given = variables instanceof Map<?, ?> m ? m.get("workspace") : null;
    // what is no number is refused where the operation reads it
    if (given == null || !given.toString().matches("-?\\d{1,18}")) return true;
    long workspace = Long.parseLong(given.toString());
    if (!known.contains(workspace)) db.all().forEach(w -> known.add(w.id()));
    if (known.contains(workspace)) return true;
    throw IroningException.of(
        "not-found",
        "Workspace " + workspace,
        "There is no such workspace.",
        "Choose one from the list.");
  }
}
