using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Globalization;
using System.Net.Sockets;
using System.Security.Cryptography;
using Daxlin.Core.Posting.Receivers;
using Daxlin.Core.Sources;
using Daxlin.Service.Secrets;
using Daxlin.Service.Storage;
using MailKit;
using MailKit.Net.Imap;
using MailKit.Search;
using MailKit.Security;
using Microsoft.EntityFrameworkCore;
using MimeKit;

namespace Daxlin.Service.Sources.Mailboxes;

/// <summary>Looks at a folder of a mailbox: takes each message once, keeps it as it came, and puts it away.</summary>
/// <remarks>
/// How far it came is stored with each message (the server's numbers rise, RFC 9051, 2.3.1.1), so a message that somebody has read is taken all the same, and one that a rule leaves
/// alone is asked for once. A message is known by its id and its body: the same message that comes twice, or that a kill left where it was, is taken once; another one under an id that
/// a careless sender uses again is taken, too.
/// </remarks>
internal sealed class MailboxLook(Taking taking, DocumentStore documents, DataFolder data, SecretStore secrets, RenewedTokens tokens, IDbContextFactory<DaxlinDb> databases, TimeProvider clock) : ISourceWay<MailboxSource>, IAsyncDisposable
{
    /// <summary>So many messages are taken in one look; the next comes at once.</summary>
    private const int MostMessages = 50;

    /// <summary>Where servers note for which of its names a mailbox got a message.</summary>
    private const string DeliveredTo = "Delivered-To";

    private static readonly TimeSpan BetweenLooks = TimeSpan.FromSeconds(60);
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(60);

    private readonly ConcurrentDictionary<string, MailboxLine> lines = new(StringComparer.Ordinal);

    /// <summary>Is told the name of a source whose mailbox has something new.</summary>
    public event Action<string>? News;

    public async Task<LookedAt> Look(Source source, MailboxSource way, CancellationToken cancel)
    {
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        patience.CancelAfter(Patience);
        try
        {
            var line = await Line(source, way, patience.Token);
            var inbox = await Opened(line.Client, way, patience.Token);
            var looked = await TakeNew(source, way, line.Client, inbox, () => patience.CancelAfter(Patience), patience.Token);
            line.Listen(inbox, () => News?.Invoke(source.Name));
            return looked;
        }
        catch (Exception error) when (!cancel.IsCancellationRequested && error is not SourceTroubleException && SentenceOf(error, way) is { } sentence)
        {
            await Close(source.Name);
            if (error is AuthenticationException && way.Renewal is { } renewal)
                tokens.Forget(renewal);
            throw new SourceTroubleException(sentence, error);
        }
    }

    /// <summary>Lets go of mailboxes that are not looked at any more.</summary>
    public async Task KeepOnly(IReadOnlySet<string> sources)
    {
        foreach (var name in lines.Keys.Where(name => !sources.Contains(name)).ToList())
            await Close(name);
    }

    private async Task<MailboxLine> Line(Source source, MailboxSource way, CancellationToken cancel)
    {
        var secret = way.Renewal is { } renewal ? await tokens.For(renewal, cancel) : secrets.Find(way.Password) ?? throw SourceTroubleException.NotKept(way.Password);
        if (lines.TryGetValue(source.Name, out var kept))
        {
            await kept.StopListening();
            // A line that was let in by another password than the one that is kept now is none.
            if (kept.IsFor(way, secret))
                return kept;
            await Close(source.Name);
        }
        var line = new MailboxLine(way, secret, new ImapClient { Timeout = (int)Patience.TotalMilliseconds });
        lines[source.Name] = line;
        var security = way.Encryption switch { MailEncryption.Tls => SecureSocketOptions.SslOnConnect, MailEncryption.StartTls => SecureSocketOptions.StartTls, _ => SecureSocketOptions.None };
        await line.Client.ConnectAsync(way.Host, way.Port, security, cancel);
        if (way.IsToken)
            await line.Client.AuthenticateAsync(new SaslMechanismOAuthBearer(way.User, secret), cancel);
        else
            await line.Client.AuthenticateAsync(way.User, secret, cancel);
        return line;
    }

    private static async Task<IMailFolder> Opened(ImapClient client, MailboxSource way, CancellationToken cancel)
    {
        var inbox = await client.GetFolderAsync(way.Folder, cancel);
        await inbox.OpenAsync(FolderAccess.ReadWrite, cancel);
        return inbox;
    }

    private async Task<LookedAt> TakeNew(Source source, MailboxSource way, ImapClient client, IMailFolder inbox, Action goesOn, CancellationToken cancel)
    {
        var (validity, reached) = await Reached(source.Name, cancel);
        if (validity != inbox.UidValidity)
            reached = 0;
        var all = (await inbox.SearchAsync(SearchQuery.Uids(new UniqueIdRange(new UniqueId(inbox.UidValidity, reached + 1), UniqueId.MaxValue)), cancel))
            // “From the next on” names the last one where there is no next.
            .Where(uid => uid.Id > reached).OrderBy(uid => uid.Id).ToList();
        var (taken, documentsTaken, leftOut) = (0, 0, 0);
        foreach (var uid in all.Take(MostMessages))
        {
            if (await TakeOne(source, way, client, inbox, uid, cancel) is { } came && came.IsNew)
                (taken, documentsTaken, leftOut) = (taken + 1, documentsTaken + came.Item.Documents, leftOut + came.Item.LeftOut);
            await Reach(source.Name, inbox.UidValidity, uid.Id, cancel);
            goesOn();
        }
        return new LookedAt(taken, documentsTaken, leftOut, Math.Max(0, all.Count - MostMessages), all.Count > MostMessages ? TimeSpan.Zero : BetweenLooks);
    }

    /// <returns>Null for one that was left alone.</returns>
    private async Task<(SourceItem Item, bool IsNew)?> TakeOne(Source source, MailboxSource way, ImapClient client, IMailFolder inbox, UniqueId uid, CancellationToken cancel)
    {
        const MessageSummaryItems Wanted = MessageSummaryItems.UniqueId | MessageSummaryItems.Envelope | MessageSummaryItems.BodyStructure | MessageSummaryItems.Size;
        var summary = (await inbox.FetchAsync([uid], new FetchRequest(Wanted, [DeliveredTo, .. AutomaticMail.Headers]), cancel)).SingleOrDefault();
        if (summary?.Envelope is not { } envelope)
            return null;
        var facts = FactsOf(summary, envelope);
        var rule = way.RuleFor(facts);
        if (rule is { IsLeft: true })
            return null;
        var came = (await Coming(source, inbox, uid, summary, facts, rule, cancel)) with { Answer = AnswerAddress.Of(facts, way, rule) };
        var (item, isNew) = await taking.TakeOnce(came, cancel);
        await PutAway(way, client, inbox, uid, item.BatchId is not null, cancel);
        return (item, isNew);
    }

    private static MailFacts FactsOf(IMessageSummary summary, Envelope envelope)
    {
        ImmutableArray<(string Field, string Value)> headers = [.. summary.Headers?.Select(header => (header.Field, header.Value)) ?? []];
        return new MailFacts(
            Addresses(envelope.From), [.. Addresses(envelope.To), .. Addresses(envelope.Cc), .. headers.Where(header => header.Field.Equals(DeliveredTo, StringComparison.OrdinalIgnoreCase)).Select(header => header.Value.Trim())],
            PlainLine.Of(envelope.Subject ?? "", ComingItem.LongestName), summary.Attachments.Any() || summary.BodyParts.Any(part => part.FileName is not null))
        {
            ReplyTo = Addresses(envelope.ReplyTo),
            Headers = headers,
        };
    }

    private static ImmutableArray<string> Addresses(InternetAddressList list) => [.. list.Mailboxes.Select(one => PlainLine.Of(one.Address, ComingItem.LongestName))];

    private async Task<ComingItem> Coming(Source source, IMailFolder inbox, UniqueId uid, IMessageSummary summary, MailFacts facts, MailRule? rule, CancellationToken cancel)
    {
        var (id, size) = (PlainLine.Of(summary.Envelope?.MessageId ?? "", ComingItem.LongestName), (long)(summary.Size ?? 0));
        // Too large to be known by its bytes.
        var large = new ComingItem(
            source.Name, ComingItem.KeyOf(id, size.ToString(CultureInfo.InvariantCulture)), facts.Subject.Length > 0 ? facts.Subject : "a message without a subject", "", size,
            (rule?.Batch ?? source.Batch).Of(DateOnly.FromDateTime(clock.GetLocalNow().DateTime), ""))
        {
            IsMessage = true,
            Totals = source.Totals,
            Template = rule is { Template.Length: > 0 } said ? said.Template : source.Template,
            From = PlainLine.Of(string.Join(", ", facts.From), ComingItem.LongestName),
            MessageId = id,
        };
        if (size > DocumentStore.LargestDocument)
            return large;
        var part = data.NewPart();
        try
        {
            await using (var file = new FileStream(part, FileMode.CreateNew, FileAccess.Write))
            await using (var message = await inbox.GetStreamAsync(uid, cancel))
                await message.CopyToAsync(file, cancel);
            await using var kept = File.OpenRead(part);
            var (sha256, length) = await documents.Keep(kept, cancel);
            return large with { Key = ComingItem.KeyOf(id, await HashOfBody(part, cancel)), Sha256 = sha256, Size = length };
        }
        catch (TooLargeException)
        {
            return large;
        }
        finally
        {
            File.Delete(part);
        }
    }

    /// <summary>Of all behind the first empty line: what stands before it, each server on the way adds to.</summary>
    private static async Task<string> HashOfBody(string path, CancellationToken cancel)
    {
        await using var file = File.OpenRead(path);
        await using var message = new BufferedStream(file, 1 << 16);
        for (var (last, line) = (0, 0); ;)
        {
            var letter = message.ReadByte();
            if (letter < 0)
                break;
            if (letter == '\n')
            {
                if (line == 0)
                    break;
                line = 0;
            }
            else if (letter != '\r' || last == '\r')
            {
                line++;
            }
            last = letter;
        }
        return Convert.ToHexStringLower(await SHA256.HashDataAsync(message, cancel));
    }

    private static async Task PutAway(MailboxSource way, ImapClient client, IMailFolder inbox, UniqueId uid, bool isTaken, CancellationToken cancel)
    {
        if ((isTaken ? way.Done : way.SetAside) is { Length: > 0 } named)
        {
            await inbox.MoveToAsync(uid, await FolderOf(client, named, cancel), cancel);
            return;
        }
        await inbox.AddFlagsAsync(uid, isTaken ? MessageFlags.Seen : MessageFlags.Flagged, silent: true, cancel);
    }

    /// <summary>A folder by its whole name; it is made if it is not there.</summary>
    private static async Task<IMailFolder> FolderOf(ImapClient client, string named, CancellationToken cancel)
    {
        try
        {
            return await client.GetFolderAsync(named, cancel);
        }
        catch (FolderNotFoundException)
        {
            var root = client.GetFolder(client.PersonalNamespaces[0]);
            return await root.CreateAsync(named, isMessageFolder: true, cancel) ?? throw new SourceTroubleException($"The mailbox has no folder {named}, and lets none be made. Make it, or name another.");
        }
    }

    private async Task<(uint Validity, uint Reached)> Reached(string source, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var reached = await db.SourceStates.Where(state => state.Name == source).Select(state => state.Reached).SingleOrDefaultAsync(cancel) ?? "";
        return reached.Split(' ') is [var validity, var uid] ? (uint.Parse(validity, CultureInfo.InvariantCulture), uint.Parse(uid, CultureInfo.InvariantCulture)) : (0, 0);
    }

    private async Task Reach(string source, uint validity, uint uid, CancellationToken cancel)
    {
        var reached = string.Create(CultureInfo.InvariantCulture, $"{validity} {uid}");
        await using var db = await databases.CreateDbContextAsync(cancel);
        await db.SourceStates.Where(state => state.Name == source).ExecuteUpdateAsync(set => set.SetProperty(state => state.Reached, reached), cancel);
    }

    private static string? SentenceOf(Exception error, MailboxSource way) => error switch
    {
        AuthenticationException or SaslException => $"{way.Host} refuses {way.User}: the name or {(way.IsToken ? "the access token" : "the password")} is not what it wants.",
        SslHandshakeException => $"The line to {way.Host}:{way.Port} cannot be encrypted: {error.Message.Split('\n')[0].Trim()}",
        FolderNotFoundException => $"The mailbox of {way.User} has no folder {way.Folder}.",
        OperationCanceledException or TimeoutException => $"{way.Host}:{way.Port} did not answer for {Patience.TotalSeconds:F0} seconds.",
        SocketException or IOException when !StorageFaults.IsFull(error) => $"{way.Host}:{way.Port} cannot be reached, or cut the line: {error.Message}",
        ProtocolException or CommandException or ServiceNotConnectedException or ServiceNotAuthenticatedException => $"{way.Host}:{way.Port} answers in a way that makes no sense: {error.Message}",
        _ => null,
    };

    private async Task Close(string source)
    {
        if (lines.TryRemove(source, out var line))
            await line.DisposeAsync();
    }

    public async ValueTask DisposeAsync()
    {
        foreach (var name in lines.Keys.ToList())
            await Close(name);
    }
}
