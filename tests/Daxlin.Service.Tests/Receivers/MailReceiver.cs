using System.Buffers;
using System.Collections.Concurrent;
using System.Net;
using System.Text.Json.Nodes;
using Daxlin.Testing;
using MimeKit;
using SmtpServer;
using SmtpServer.ComponentModel;
using SmtpServer.Protocol;
using SmtpServer.Storage;

namespace Daxlin.Service.Tests.Receivers;

/// <summary>A mail server that keeps what it takes.</summary>
internal sealed class MailReceiver : MessageStore, ITestReceiver
{
    private readonly CancellationTokenSource end = new();

    public MailReceiver()
    {
        var services = new ServiceProvider();
        services.Add(this);
        var options = new SmtpServerOptionsBuilder().ServerName("mail.kestrel.example")
            .Endpoint(endpoint => endpoint.Endpoint(new IPEndPoint(IPAddress.Loopback, Port)).AllowUnsecureAuthentication()).Build();
        _ = new SmtpServer.SmtpServer(options, services).StartAsync(end.Token);
    }

    public int Port { get; } = Programs.FreePort();

    public ConcurrentQueue<MimeMessage> Messages { get; } = new();

    public (JsonObject Way, (string Name, string Value)[] Secrets) Described(int port) => (new()
    {
        ["mail"] = new JsonObject
        {
            ["host"] = "127.0.0.1",
            ["port"] = port,
            ["encryption"] = "none",
            ["from"] = "daxlin@kestrel.example",
            ["to"] = "ledger@kestrel.example",
            ["subject"] = "Run {run} of Kestrel Sound Ferries",
        },
    }, []);

    public Task<int> TimesOf(JsonNode run) => Task.FromResult(Messages.Count(message => message.Subject == $"Run {run["number"]} of Kestrel Sound Ferries"));

    public override async Task<SmtpResponse> SaveAsync(ISessionContext context, IMessageTransaction transaction, ReadOnlySequence<byte> buffer, CancellationToken cancellationToken)
    {
        using var bytes = new MemoryStream(buffer.ToArray());
        Messages.Enqueue(await MimeMessage.LoadAsync(bytes, cancellationToken));
        return SmtpResponse.Ok;
    }

    public async ValueTask DisposeAsync()
    {
        await end.CancelAsync();
        end.Dispose();
    }
}
