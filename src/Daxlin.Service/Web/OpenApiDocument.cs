

namespace Daxlin.Service.Web;

/// <summary>Writes the interface's description to a file, for the console's types.</summary>
internal static class OpenApiDocument
{
    public const string Argument = "write-openapi";

    public static async Task<int> Write(string path)
    {
        var scratch = Directory.CreateTempSubdirectory("daxlin-openapi-").FullName;
        try
        {
            await using var app = ServiceHost.Build(ServiceSettings.Parse(["--port", "0", "--data", scratch]));
            await ServiceHost.PrepareStorage(app);
            await app.StartAsync();
            using var http = new HttpClient { BaseAddress = new Uri(app.Urls.First()) };
            await File.WriteAllTextAsync(path, await http.GetStringAsync(ServiceHost.OpenApiPath));
            await app.StopAsync();
            return 0;
        }
        finally
        {
            Directory.Delete(scratch, recursive: true);
        }
    }
}
