using System.Globalization;
using System.Net.Sockets;
using Daxlin.Service.Secrets;
using Daxlin.Core.Posting.Receivers;
using Daxlin.Service.Posting.Receivers;
using MailKit;
using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;

namespace Daxlin.Service.Posting.Deliveries.Ways;

/// <summary>Sends a run as one message with its files attached (RFC 5321).</summary>
/// <remarks>
/// A mail server that took a message and whose answer was lost cannot be asked whether it has it. So a message that may be there
/// already is not sent again by itself: a person looks for its Message-ID and says how to go on.
/// </remarks>
internal sealed class MailDelivery(SecretStore secrets) : IDeliveryWay<MailWay>
{
    public Task Prepare(Parcel parcel, MailWay way, CancellationToken cancel)
    {
        PasswordOf(way);
        return Task.CompletedTask;
    }

    public async Task<string> HandOver(Parcel parcel, MailWay way, bool isResumed, CancellationToken cancel)
    {
        using var message = MessageOf(parcel, way);
        if (isResumed)
            throw Unsure(message, null);
        return await Send(message, way, cancel);
    }

    /// <summary>Hands a message over to the server of a way.</summary>
    /// <returns>What the server said.</returns>
    /// <exception cref="DeliveryFaultException">It says whether the message may have arrived.</exception>
    internal async Task<string> Send(MimeMessage message, MailWay way, CancellationToken cancel)
    {
        using var client = await Connect(way, cancel);
        try
        {
            var answer = await client.SendAsync(message, cancel);
            return $"{way.Host} took message {message.MessageId} for {string.Join(", ", message.To.Mailboxes.Select(one => one.Address))}: {Line(answer)}";
        }
        catch (SmtpCommandException error)
        {
            throw new DeliveryFaultException($"{way.Host} refused the message: {Line(error.Message).TrimEnd('.')}.", nothingReached: true, inner: error);
        }
        catch (Exception error) when (error is IOException or SocketException or ProtocolException or OperationCanceledException)
        {
            throw Unsure(message, error);
        }
    }

    public async Task<string> Reach(MailWay way, CancellationToken cancel)
    {
        using var client = await Connect(way, cancel);
        await client.DisconnectAsync(quit: true, cancel);
        return $"{way.Host} answers{(way.User.Length > 0 ? $" and takes {way.User}'s password" : "")}. Whether it takes mail for {string.Join(", ", way.To)} shows with the first.";
    }

    private async Task<SmtpClient> Connect(MailWay way, CancellationToken cancel)
    {
        var client = new SmtpClient();
        try
        {
            await client.ConnectAsync(
                way.Host, way.Port,
                way.Encryption switch { MailEncryption.Tls => SecureSocketOptions.SslOnConnect, MailEncryption.None => SecureSocketOptions.None, _ => SecureSocketOptions.StartTls }, cancel);
            if (way.User.Length > 0)
                await client.AuthenticateAsync(way.User, PasswordOf(way), cancel);
            return client;
        }
        catch (Exception error) when (error is IOException or SocketException or System.Security.Authentication.AuthenticationException or SslHandshakeException or AuthenticationException
            or ProtocolException or CommandException or NotSupportedException or OperationCanceledException)
        {
            client.Dispose();
            throw new DeliveryFaultException(
                error switch
                {
                    AuthenticationException => $"{way.Host} does not take {way.User}'s password.",
                    OperationCanceledException => $"{way.Host}:{way.Port} did not answer in time.",
                    NotSupportedException => $"{way.Host}:{way.Port} offers no encryption. Nothing was sent in the open.",
                    SslHandshakeException => $"The line to {way.Host}:{way.Port} could not be encrypted: its certificate is not one that this machine trusts, or it speaks no TLS on this port.",
                    _ => $"{way.Host}:{way.Port} could not be reached: {Line(error.Message).TrimEnd('.')}.",
                },
                nothingReached: true, inner: error);
        }
    }

    private string PasswordOf(MailWay way) => way.Password.Length == 0 ? "" : secrets.Needed(way.Password);

    private static DeliveryFaultException Unsure(MimeMessage message, Exception? error) => new(
        $"The line was cut while the message was handed over, so nobody here can tell whether it arrived. Look for Message-ID {message.MessageId}: if it is there, say so; if not, send it again.",
        isUnsure: true, inner: error);

    private static MimeMessage MessageOf(Parcel parcel, MailWay way)
    {
        var message = new MimeMessage();
        message.From.Add(MailboxAddress.Parse(way.From));
        message.To.AddRange(way.To.Select(MailboxAddress.Parse));
        message.Subject = way.Subject.Replace("{run}", parcel.Run.Number.ToString(CultureInfo.InvariantCulture), StringComparison.Ordinal);
        message.Date = new DateTimeOffset(parcel.Run.At, TimeSpan.Zero);
        // The same however often it is sent, so that whoever gets it twice all the same can tell.
        message.MessageId = $"{parcel.Key}@{way.From[(way.From.IndexOf('@', StringComparison.Ordinal) + 1)..]}";
        var sums = System.Text.Json.JsonSerializer.Deserialize<SortedDictionary<string, string>>(parcel.Run.Sums)!;
        var body = new BodyBuilder
        {
            TextBody =
                $"""
                Posting run {parcel.Run.Number}{(parcel.Run.Reverses is { } taken ? $", which takes run {taken} back" : "")}, made by {parcel.Run.By}, {parcel.Run.At:yyyy-MM-dd HH:mm} UTC.
                {parcel.Run.Invoices} invoices, {parcel.Run.Rows} records. Totals: {string.Join(", ", sums.Select(sum => $"{sum.Value} {sum.Key}"))}.

                {string.Join("\n", parcel.Files.Select(file => $"{file.Name}: SHA-256 {file.Sha256}"))}
                """,
        };
        foreach (var file in parcel.Files)
        {
            // Written as text, a file's line ends would become those of mail.
            var attached = (MimePart)body.Attachments.Add(file.Name, file.Content, ContentType.Parse(file.MediaType));
            attached.ContentTransferEncoding = ContentEncoding.Base64;
        }
        message.Body = body.ToMessageBody();
        return message;
    }

    private static string Line(string text) => string.Concat(text.Select(letter => char.IsControl(letter) ? ' ' : letter)).Trim();
}
