// name: Azure Blob Storage (Netty)
// needs: com.azure:azure-storage-blob:12.30.0
import com.azure.storage.blob.BlobClientBuilder;

public final class AzureBlob implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return new BlobClientBuilder()
        .endpoint(origin + "/account")
        .sasToken("sv=2024-01-01&sig=made-up")
        .containerName("charts")
        .blobName("tides.json")
        .buildClient()
        .downloadContent();
  }
}
