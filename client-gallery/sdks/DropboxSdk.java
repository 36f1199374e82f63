// name: Dropbox
// needs: com.dropbox.core:dropbox-core-sdk:7.0.0
import com.dropbox.core.DbxRequestConfig;
import com.dropbox.core.v2.DbxClientV2;
import java.util.List;

public final class DropboxSdk implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return new DbxClientV2(DbxRequestConfig.newBuilder("harbour").build(), "made-up")
        .files()
        .getMetadata("/tides")
        .getName();
  }

  @Override
  public List<String> answer() {
    return List.of("application/json", "{\".tag\":\"folder\",\"name\":\"04:10\",\"id\":\"id:1\",\"path_lower\":\"/tides\"}");
  }

  @Override
  public List<String> schemes() {
    return List.of("https");
  }

  @Override
  public String host() {
    return "api.dropboxapi.com";
  }
}
