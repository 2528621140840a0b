using System.Text.Json.Serialization;
using Daxlin.Service.Batches;
using Daxlin.Service.Documents;
using Daxlin.Service.Invoices;
using Daxlin.Service.Posting;
using Daxlin.Service.Storage;
using Daxlin.Service.Templates;
using Daxlin.Service.Web;
using Daxlin.Service.Work;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.FileProviders;
using Serilog;
using Serilog.Events;
using Serilog.Formatting.Compact;

namespace Daxlin.Service;

/// <summary>Builds the service: storage, work in the background, interface, console.</summary>
public static class ServiceHost
{
    public const string OpenApiPath = "/api/v1/openapi.json";

    public static WebApplication Build(ServiceSettings settings)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Services.AddRoutingCore();
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.Listen(settings.Address, settings.Port);
            kestrel.Limits.MaxRequestBodySize = BatchEndpoints.LargestUpload;
            kestrel.AddServerHeader = false;
        });
        var folder = new DataFolder(settings.Data);
        builder.Services.AddSerilog(log => log
            .MinimumLevel.Information()
            .MinimumLevel.Override("Microsoft", LogEventLevel.Warning)
            .MinimumLevel.Override("Microsoft.Hosting.Lifetime", LogEventLevel.Information)
            .Enrich.FromLogContext()
            .WriteTo.File(new CompactJsonFormatter(), folder.Log, rollingInterval: RollingInterval.Day, retainedFileCountLimit: 30));
        builder.Services.AddSingleton(folder);
        builder.Services.AddPooledDbContextFactory<DaxlinDb>(db => db.UseSqlite($"Data Source={folder.Database}"));
        builder.Services.AddScoped(services => services.GetRequiredService<IDbContextFactory<DaxlinDb>>().CreateDbContext());
        builder.Services.AddSingleton<DocumentStore>();
        builder.Services.AddSingleton<WriteTurn>();
        builder.Services.AddSingleton<TemplateShelf>();
        builder.Services.AddSingleton<DocumentReader>();
        builder.Services.AddSingleton<DocumentCapture>();
        builder.Services.AddSingleton<CaptureQueue>();
        builder.Services.AddSingleton<BatchEvents>();
        builder.Services.AddSingleton(TimeProvider.System);
        builder.Services.AddHostedService<CaptureWorker>();
        builder.Services.AddProblemDetails();
        builder.Services.AddHealthChecks().AddCheck<StorageHealth>("storage");
        builder.Services.AddOpenApi("v1", openApi => openApi.AddDocumentTransformer((document, _, _) =>
        {
            document.Info.Title = "Daxlin";
            document.Info.Description = "Amounts and quantities are strings, dates ISO 8601, errors problem details (RFC 9457).";
            document.Servers = [];
            return Task.CompletedTask;
        }));
        builder.Services.ConfigureHttpJsonOptions(json =>
        {
            json.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
            json.SerializerOptions.Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping;
        });
        builder.Services.Configure<FormOptions>(form =>
        {
            form.MultipartBodyLengthLimit = BatchEndpoints.LargestUpload;
            form.ValueCountLimit = BatchEndpoints.MostFiles;
        });

        var app = builder.Build();
        app.UseExceptionHandler();
        app.UseStatusCodePages();
        OnlyThisMachine.Use(app);
        app.Use(async (context, next) =>
        {
            context.Response.Headers.XContentTypeOptions = "nosniff";
            context.Response.Headers["Referrer-Policy"] = "no-referrer";
            context.Response.Headers.XFrameOptions = "DENY";
            await next(context);
        });
        app.UseSerilogRequestLogging();
        app.MapHealthChecks("/health");
        app.MapOpenApi("/api/{documentName}/openapi.json");
        var api = app.MapGroup("/api/v1");
        TemplateEndpoints.Map(api);
        BatchEndpoints.Map(api);
        DocumentEndpoints.Map(api);
        InvoiceEndpoints.Map(api);
        PostingEndpoints.Map(api);
        app.Map("/api/{**rest}", () => Problem.NotThere("such address in the interface")).ExcludeFromDescription();
        ServeConsole(app, settings.Console);
        return app;
    }

    /// <summary>Brings the database to the newest form. Call once before <see cref="WebApplication.Run"/>.</summary>
    public static async Task PrepareStorage(WebApplication app)
    {
        await using var db = await app.Services.GetRequiredService<IDbContextFactory<DaxlinDb>>().CreateDbContextAsync();
        await db.Database.MigrateAsync();
        // Write-ahead logging: readers do not wait for the writer, and a kill loses nothing that was committed.
        await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL;");
    }

    private static void ServeConsole(WebApplication app, string? console)
    {
        if (console is null || !File.Exists(Path.Combine(console, "index.html")))
        {
            app.MapGet("/", () => Results.Text(
                "Daxlin is running, but its console was not built. Start it with ./daxlin, which builds it.")).ExcludeFromDescription();
            return;
        }
        var files = new PhysicalFileProvider(Path.GetFullPath(console));
        app.UseStaticFiles(new StaticFileOptions
        {
            FileProvider = files,
            ServeUnknownFileTypes = true,
            OnPrepareResponse = served =>
            {
                // The page names its parts by their hash, so only the page itself must be asked for anew.
                served.Context.Response.Headers.CacheControl =
                    served.File.Name == "index.html" ? "no-cache" : "public, max-age=31536000, immutable";
            },
        });
        app.MapFallback(async context =>
        {
            context.Response.ContentType = "text/html; charset=utf-8";
            context.Response.Headers.CacheControl = "no-cache";
            context.Response.Headers.ContentSecurityPolicy =
                "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; worker-src 'self' blob:; "
                + "font-src 'self' data:; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'; object-src 'none'; frame-ancestors 'none'; base-uri 'none'";
            await context.Response.SendFileAsync(files.GetFileInfo("index.html"));
        });
    }
}
