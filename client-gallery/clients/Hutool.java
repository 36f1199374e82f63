// name: Hutool HTTP
// needs: cn.hutool:hutool-http:5.8.40
import cn.hutool.http.HttpUtil;

public final class Hutool implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return HttpUtil.get(origin + "/v1/tides");
  }
}
