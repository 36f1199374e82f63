// name: Ktor client, OkHttp
// needs: io.ktor:ktor-client-okhttp-jvm:3.2.3
import static java.nio.charset.StandardCharsets.UTF_8;

import io.ktor.client.HttpClient;
import io.ktor.client.HttpClientKt;
import io.ktor.client.engine.okhttp.OkHttp;
import io.ktor.client.request.HttpRequestBuilder;
import io.ktor.client.request.HttpRequestKt;
import io.ktor.client.statement.HttpResponse;
import io.ktor.client.statement.HttpResponseKt;
import io.ktor.client.statement.HttpStatement;
import kotlin.Unit;
import kotlin.coroutines.EmptyCoroutineContext;
import kotlinx.coroutines.BuildersKt;

public final class KtorOkHttp implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    HttpClient client = HttpClientKt.HttpClient(OkHttp.INSTANCE, config -> Unit.INSTANCE);
    Object response =
        BuildersKt.runBlocking(
            EmptyCoroutineContext.INSTANCE,
            (scope, continuation) -> {
              HttpRequestBuilder request = new HttpRequestBuilder();
              HttpRequestKt.url(request, origin + "/v1/tides");
              return new HttpStatement(request, client).execute(continuation);
            });
    return BuildersKt.runBlocking(
        EmptyCoroutineContext.INSTANCE,
        (scope, continuation) ->
            HttpResponseKt.bodyAsText((HttpResponse) response, UTF_8, continuation));
  }
}
