using System.Text.Json.Serialization;
using Daxlin.Service.Approvals;
using Daxlin.Service.Batches;
using Daxlin.Service.Captures;
using Daxlin.Service.Captures.Links;
using Daxlin.Service.Captures.Notices;
using Daxlin.Service.Demo;
using Daxlin.Service.Desk;
using Daxlin.Service.Documents;
using Daxlin.Service.Figures;
using Daxlin.Service.History;
using Daxlin.Service.Invoices;
using Daxlin.Service.Letters;
using Daxlin.Service.Nodes;
using Daxlin.Service.Operation;
using Daxlin.Service.People;
using Daxlin.Service.People.Provider;
using Daxlin.Service.Outgoing;
using Daxlin.Service.Posting;
using Daxlin.Service.Posting.Coding;
using Daxlin.Service.Posting.Deliveries;
using Daxlin.Service.Posting.Deliveries.Ways;
using Daxlin.Service.Posting.Layouts;
using Daxlin.Service.Posting.Lists;
using Daxlin.Service.Posting.Periods;
using Daxlin.Service.Posting.Receivers;
using Daxlin.Service.Posting.Sums;
using Daxlin.Service.Posting.Tables;
using Daxlin.Service.Rehearsals;
using Daxlin.Service.Review;
using Daxlin.Service.Schedules;
using Daxlin.Service.Secrets;
using Daxlin.Service.Sources;
using Daxlin.Service.Sources.Folders;
using Daxlin.Service.Sources.Mailboxes;
using Daxlin.Service.Storage;
using Daxlin.Service.Templates;
using Daxlin.Service.Vendors;
using Daxlin.Service.Web;
using Daxlin.Service.Work;
using Microsoft.AspNetCore.Diagnostics.HealthChecks;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Diagnostics.HealthChecks;
using Microsoft.Extensions.FileProviders;
using Serilog;
using Serilog.Events;
using Serilog.Formatting.Compact;

namespace Daxlin.Service;

/// <summary>Builds the service: storage, work in the background, interface, console.</summary>
public static class ServiceHost
{
    public const string OpenApiPath = "/api/v1/openapi.json";

    /// <param name="readers">Reading processes that it shares with other services of this process; null for its own.</param>
    public static WebApplication Build(ServiceSettings settings, ReaderPool? readers = null)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Services.AddRoutingCore();
        builder.WebHost.UseKestrelHttpsConfiguration();
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.Listen(settings.Address, settings.Port, listen =>
            {
                if (settings.Certificate is { } certificate)
                    listen.UseHttps(certificate);
            });
            kestrel.Limits.MaxRequestBodySize = BatchEndpoints.LargestUpload;
            kestrel.AddServerHeader = false;
        });
        var folder = new DataFolder(settings.Data, settings.Node);
        builder.Services.AddSerilog(log => log
            .MinimumLevel.Information()
            .MinimumLevel.Override("Microsoft", LogEventLevel.Warning)
            .MinimumLevel.Override("Microsoft.Hosting.Lifetime", LogEventLevel.Information)
            .Enrich.FromLogContext()
            .WriteTo.File(new CompactJsonFormatter(), folder.Log, rollingInterval: RollingInterval.Day, retainedFileCountLimit: 30), preserveStaticLogger: true);
        builder.Services.AddSingleton(settings);
        builder.Services.AddSingleton(folder);
        var store = Store.Of(settings, folder);
        builder.Services.AddSingleton(store);
        AddNodes(builder.Services, settings);
        Telemetry.Add(builder.Services, settings);
        builder.Services.AddSingleton<Measures>();
        builder.Services.AddPooledDbContextFactory<DaxlinDb>(store.Configure);
        builder.Services.AddHttpContextAccessor();
        builder.Services.AddScoped<Reach>();
        builder.Services.AddScoped(Reach.DbOf);
        builder.Services.AddSingleton<DocumentStore>();
        builder.Services.AddSingleton(_ => new WriteTurn(store));
        builder.Services.AddSingleton<TemplateShelf>();
        if (readers is null)
            builder.Services.AddSingleton(_ => new ReaderPool(typeof(ServiceHost).Assembly.Location));
        else
            builder.Services.AddSingleton(readers);
        builder.Services.AddSingleton<RecognitionProgress>();
        builder.Services.AddSingleton<ReadingProcesses>();
        builder.Services.AddSingleton<StorageState>();
        builder.Services.AddSingleton<DocumentCapture>();
        builder.Services.AddSingleton<BatchEvents>();
        builder.Services.AddSingleton<DriftWatch>();
        builder.Services.AddSingleton<RehearsalEvents>();
        builder.Services.AddSingleton<RehearsalWork>();
        builder.Services.AddSingleton<RehearsalWorker>();
        builder.Services.AddScoped<TemplateHistory>();
        builder.Services.AddScoped<LayoutShelf>();
        builder.Services.AddScoped<ListShelf>();
        builder.Services.AddScoped<TriedLayouts>();
        builder.Services.AddScoped<CodingShelf>();
        builder.Services.AddScoped<ClosedPeriods>();
        builder.Services.AddScoped<TriedCodings>();
        builder.Services.AddSingleton<CodingEvents>();
        builder.Services.AddSingleton<CodingWorker>();
        builder.Services.AddSingleton<SecretStore>();
        builder.Services.AddSingleton<FolderDelivery>();
        builder.Services.AddSingleton<SignedRequests>();
        builder.Services.AddSingleton<WebhookDelivery>();
        builder.Services.AddSingleton<MailDelivery>();
        builder.Services.AddSingleton<SftpDelivery>();
        builder.Services.AddSingleton<TableDelivery>();
        builder.Services.AddSingleton<DeliveryWays>();
        builder.Services.AddSingleton<DeliveryEvents>();
        builder.Services.AddSingleton<DeliveryWorker>();
        builder.Services.AddScoped<ReceiverShelf>();
        builder.Services.AddScoped<DeliveryActs>();
        builder.Services.AddSingleton<Taking>();
        builder.Services.AddSingleton<FolderLook>();
        builder.Services.AddSingleton<RenewedTokens>();
        builder.Services.AddSingleton<MailboxLook>();
        builder.Services.AddSingleton<SourceWays>();
        builder.Services.AddSingleton<SourceWatch>();
        builder.Services.AddScoped<SourceShelf>();
        builder.Services.AddScoped<ScheduleShelf>();
        builder.Services.AddScoped<Turns>();
        builder.Services.AddScoped<PostingRuns>();
        builder.Services.AddScoped<TaughtTemplates>();
        builder.Services.AddScoped<BatchIntake>();
        builder.Services.AddScoped<OpeningBatch>();
        builder.Services.AddScoped<BoundActs>();
        builder.Services.AddScoped<Approving>();
        builder.Services.AddScoped<ApprovingMany>();
        builder.Services.AddScoped<WithdrawingApproval>();
        builder.Services.AddScoped<ApprovalRulings>();
        builder.Services.AddScoped<FourEyes>();
        builder.Services.AddScoped<SettingAside>();
        builder.Services.AddScoped<HandingOver>();
        builder.Services.AddScoped<Correcting>();
        builder.Services.AddScoped<ChoosingTemplate>();
        builder.Services.AddScoped<StatingTotals>();
        builder.Services.AddScoped<VendorKeeping>();
        builder.Services.AddScoped<VendorImport>();
        builder.Services.AddScoped<ProposedCorrections>();
        builder.Services.AddScoped<RehearsalStart>();
        builder.Services.AddScoped<DemoInvoices>();
        builder.Services.AddSingleton<TimeProvider, StoredClock>();
        SignInSchemes.Add(builder.Services, settings, folder);
        builder.Services.AddRateLimiter(Limits.Add);
        builder.Services.AddHostedService<CaptureWorker>();
        builder.Services.AddHostedService<HistoryWatch>();
        builder.Services.AddHostedService<NodeWatch>();
        builder.Services.AddHostedService(services => services.GetRequiredService<CodingWorker>());
        builder.Services.AddHostedService(services => services.GetRequiredService<DeliveryWorker>());
        builder.Services.AddHostedService(services => services.GetRequiredService<RehearsalWorker>());
        builder.Services.AddHostedService(services => services.GetRequiredService<SourceWatch>());
        builder.Services.AddHostedService<Answers>();
        builder.Services.AddHostedService<LetterWorker>();
        builder.Services.AddHostedService<CaptureNotices>();
        builder.Services.AddHostedService<ScheduleWatch>();
        builder.Services.AddHostedService<DigestWorker>();
        builder.Services.AddScoped<SendingLetter>();
        builder.Services.AddSingleton<MailOnce>();
        builder.Services.AddSingleton<LinkedDocuments>();
        builder.Services.AddScoped<AskingForNotice>();
        builder.Services.Configure<HostOptions>(host => host.ShutdownTimeout = TimeSpan.FromSeconds(4));
        builder.Services.AddProblemDetails(problems => problems.CustomizeProblemDetails = Problem.Complete);
        builder.Services.AddExceptionHandler<RequestFaults>();
        builder.Services.Configure<RouteHandlerOptions>(routes => routes.ThrowOnBadRequest = true);
        builder.Services.Configure<RouteOptions>(routes => routes.ConstraintMap.Add(PageOfConsole.Name, typeof(PageOfConsole)));
        builder.Services.AddHealthChecks().AddCheck<StorageHealth>("storage").AddCheck<StopHealth>("stop");
        builder.Services.AddOpenApi("v1", openApi => openApi.AddDocumentTransformer((document, _, _) =>
        {
            document.Info.Title = "Daxlin";
            document.Info.Description = "Amounts and quantities are strings, dates ISO 8601, errors problem details (RFC 9457). “x-right” says of an operation which right it needs: "
                + "see, work, approve, post, administer; anyone who is signed in; or nobody has to be.";
            document.Servers = [];
            return Task.CompletedTask;
        }).AddOperationTransformer(RightsInOpenApi.Tell));
        builder.Services.ConfigureHttpJsonOptions(json =>
        {
            json.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
            // A key that is misspelt is refused, not passed over: "batchId" must not post all batches.
            json.SerializerOptions.UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow;
            json.SerializerOptions.AllowDuplicateProperties = false;
            json.SerializerOptions.PropertyNameCaseInsensitive = false;
            json.SerializerOptions.MaxDepth = 32;
            json.SerializerOptions.Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping;
        });
        builder.Services.Configure<FormOptions>(form =>
        {
            form.MultipartBodyLengthLimit = BatchEndpoints.LargestUpload;
            form.ValueCountLimit = BatchEndpoints.MostFiles;
        });

        var app = builder.Build();
        if (!settings.Proxies.IsEmpty)
            app.UseForwardedHeaders(BehindProxy.Of(settings));
        SafeHeaders.Use(app);
        app.UseExceptionHandler();
        app.UseStatusCodePages();
        OnlyOwnPages.Use(app, settings);
        OnlyUtf8.Use(app);
        app.UseSerilogRequestLogging(requests => requests.Logger = app.Services.GetRequiredService<Serilog.ILogger>());
        app.UseRouting();
        app.UseAuthentication();
        app.UseRateLimiter();
        FormGuard.Use(app);
        app.UseAuthorization();
        Reach.Use(app);
        app.MapHealthChecks("/health", new HealthCheckOptions { ResponseWriter = WriteHealth });
        app.MapHealthChecks("/health/ready", new HealthCheckOptions { ResponseWriter = WriteHealth });
        // Alive is what answers: it is not to be killed for a database that is away.
        app.MapHealthChecks("/health/live", new HealthCheckOptions { Predicate = _ => false, ResponseWriter = WriteHealth });
        Telemetry.Map(app);
        app.MapOpenApi("/api/{documentName}/openapi.json");
        var api = app.MapGroup("/api/v1");
        NeededRights.Guard(api);
        SessionEndpoints.Map(api);
        PersonEndpoints.Map(api);
        KeyEndpoints.Map(api);
        StandInEndpoints.Map(api);
        ApprovalEndpoints.Map(api);
        TemplateEndpoints.Map(api);
        DeskEndpoints.Map(api);
        DraftEndpoints.Map(api);
        RehearsalEndpoints.Map(api);
        BatchEndpoints.Map(api);
        CaptureEndpoints.Map(api);
        DocumentEndpoints.Map(api);
        InvoiceEndpoints.Map(api);
        ReviewEndpoints.Map(api);
        PostingEndpoints.Map(api);
        LayoutEndpoints.Map(api);
        CodingEndpoints.Map(api);
        PeriodEndpoints.Map(api);
        SumEndpoints.Map(api);
        ListEndpoints.Map(api);
        ReceiverEndpoints.Map(api);
        DeliveryEndpoints.Map(api);
        ScheduleEndpoints.Map(api);
        SourceEndpoints.Map(api);
        TableEndpoints.Map(api);
        VendorEndpoints.Map(api);
        HistoryEndpoints.Map(api);
        FiguresEndpoints.Map(api);
        DemoEndpoints.Map(api);
        OperationEndpoints.Map(api);
        api.MapGet("/state", State).WithTags("Service").WithSummary("Whether the service can work, and if not, why.").NeedsAnyone();
        ProviderSignIn.Map(app, settings);
        ServeConsole(app, settings.Console);
        return app;
    }

    /// <summary>How work is shared: among the services on one database server, or not at all.</summary>
    private static void AddNodes(IServiceCollection services, ServiceSettings settings)
    {
        if (settings.Store.Length == 0)
        {
            services.AddSingleton<NodeMessages, NoMessages>();
            services.AddSingleton<Leases, NoLeases>();
            services.AddSingleton<CaptureQueue, OwnCaptureQueue>();
            return;
        }
        services.AddSingleton<StoredMessages>();
        services.AddSingleton<NodeMessages>(all => all.GetRequiredService<StoredMessages>());
        services.AddHostedService(all => all.GetRequiredService<StoredMessages>());
        services.AddSingleton<StoredLeases>();
        services.AddSingleton<Leases>(all => all.GetRequiredService<StoredLeases>());
        services.AddHostedService(all => all.GetRequiredService<StoredLeases>());
        services.AddSingleton<CaptureQueue, SharedCaptureQueue>();
    }

    /// <summary>Brings the database to the newest form. Call once before <see cref="WebApplication.Run"/>.</summary>
    /// <exception cref="StorageException">There are documents but no database, or it cannot be reached.</exception>
    public static async Task PrepareStorage(WebApplication app)
    {
        await using var db = await app.Services.GetRequiredService<IDbContextFactory<DaxlinDb>>().CreateDbContextAsync();
        await app.Services.GetRequiredService<Store>().Migrate(db);
        await using var change = await app.Services.GetRequiredService<WriteTurn>().Take(db, default);
        await EarlierReleases.TakeOver(db, app.Services.GetRequiredService<TimeProvider>().GetUtcNow().UtcDateTime);
        await change.Commit(default);
    }

    /// <summary>The link by which the first administrator begins; null if there are people already, or none are needed.</summary>
    public static async Task<string?> FirstLink(WebApplication app)
    {
        if (app.Services.GetRequiredService<ServiceSettings>().IsWithoutSignIn)
            return null;
        await using var scope = app.Services.CreateAsyncScope();
        return await scope.ServiceProvider.GetRequiredService<OneTimeLinks>().ForFirst(default);
    }

    private static Task WriteHealth(HttpContext context, HealthReport report)
    {
        var said = report.Entries.Values.Select(entry => entry.Description).Where(sentence => !string.IsNullOrEmpty(sentence));
        return context.Response.WriteAsync(string.Join(": ", said.Prepend(report.Status.ToString())));
    }

    private static Ok<ServiceState> State(StorageState storage) =>
        TypedResults.Ok(storage.Current is { } trouble ? new ServiceState(false, trouble.Code, trouble.Sentence) : new ServiceState(true, "", ""));

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
        app.MapFallback($"{{*path:{PageOfConsole.Name}}}", async context =>
        {
            context.Response.ContentType = "text/html; charset=utf-8";
            context.Response.Headers.CacheControl = "no-cache";
            await context.Response.SendFileAsync(files.GetFileInfo("index.html"));
        }).WithMetadata(new HttpMethodMetadata([HttpMethods.Get, HttpMethods.Head]));
    }
}

/// <summary>Whether the service can work.</summary>
/// <param name="Code">disk-full, database-damaged and others; empty if all is well.</param>
/// <param name="Sentence">What is wrong, for a clerk; empty if all is well.</param>
public sealed record ServiceState(bool IsWell, string Code, string Sentence);
