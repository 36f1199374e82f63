// name: Vault
// needs: com.bettercloud:vault-java-driver:5.1.0
import com.bettercloud.vault.Vault;
import com.bettercloud.vault.VaultConfig;
import java.util.List;

public final class VaultDriver implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    VaultConfig config =
        new VaultConfig().address(origin).token("made-up").engineVersion(1).build();
    return new Vault(config).logical().read("secret/tides").getData();
  }

  @Override
  public List<String> answer() {
    return List.of("application/json", "{\"data\":{\"high\":\"04:10\"}}");
  }
}
