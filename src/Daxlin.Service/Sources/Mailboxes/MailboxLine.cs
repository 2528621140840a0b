using Daxlin.Core.Sources;
using MailKit;
using MailKit.Net.Imap;

namespace Daxlin.Service.Sources.Mailboxes;

/// <summary>A line to a mail server that is kept between looks, on which the server tells of what comes (IDLE, RFC 2177).</summary>
/// <param name="secret">By which the server let it in.</param>
internal sealed class MailboxLine(MailboxSource way, string secret, ImapClient client) : IAsyncDisposable
{
    private CancellationTokenSource? listening;
    private Task idle = Task.CompletedTask;

    public ImapClient Client => client;

    /// <summary>Says that it still stands, and that whoever looks now would make the same.</summary>
    public bool IsFor(MailboxSource other, string kept) => client is { IsConnected: true, IsAuthenticated: true } && secret == kept
        && (way.Host, way.Port, way.Encryption, way.User, way.IsToken) == (other.Host, other.Port, other.Encryption, other.User, other.IsToken);

    /// <summary>Waits for news beside; a server that cannot tell is only asked.</summary>
    public void Listen(IMailFolder inbox, Action news)
    {
        if (!client.Capabilities.HasFlag(ImapCapabilities.Idle))
            return;
        // Servers end a line on which nothing was asked for half an hour.
        listening = new CancellationTokenSource(TimeSpan.FromMinutes(9));
        idle = Idle(inbox, news, listening.Token);
    }

    private async Task Idle(IMailFolder inbox, Action news, CancellationToken until)
    {
        void More(object? sender, EventArgs change) => news();
        inbox.CountChanged += More;
        try
        {
            await client.IdleAsync(until, CancellationToken.None);
        }
        catch (Exception error) when (error is IOException or ProtocolException or CommandException or OperationCanceledException or ObjectDisposedException or InvalidOperationException)
        {
            // The next look finds the line cut, and makes another.
        }
        finally
        {
            inbox.CountChanged -= More;
        }
    }

    public async Task StopListening()
    {
        if (listening is not { } token)
            return;
        listening = null;
        await token.CancelAsync();
        await idle;
        token.Dispose();
    }

    public async ValueTask DisposeAsync()
    {
        await StopListening();
        client.Dispose();
    }
}
