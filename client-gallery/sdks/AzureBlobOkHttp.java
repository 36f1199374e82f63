// name: Azure Blob Storage (OkHttp)
// needs: com.azure:azure-storage-blob:12.30.0
// needs: com.azure:azure-core-http-okhttp:1.12.10
import com.azure.core.http.okhttp.OkHttpAsyncHttpClientBuilder;
import com.azure.storage.blob.BlobClientBuilder;

public final class AzureBlobOkHttp implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return new BlobClientBuilder()
        .httpClient(new OkHttpAsyncHttpClientBuilder().build())
        .endpoint(origin + "/account")
        .sasToken("sv=2024-01-01&sig=made-up")
        .containerName("charts")
        .blobName("tides.json")
        .buildClient()
        .downloadContent();
  }
}
