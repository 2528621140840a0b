using System.Collections.Immutable;
using Daxlin.Core.Posting.Receivers;

namespace Daxlin.Core.Sources;

/// <summary>A folder of a mailbox, by IMAP (RFC 9051).</summary>
/// <param name="Password">Names the secret; empty where a token is renewed.</param>
/// <param name="IsToken">Whether the secret is an access token (OAuth 2, RFC 7628) and no password.</param>
/// <param name="Folder">Which is looked at.</param>
/// <param name="Rules">In order; the first that fits a message says what is done with it. One that none fits is taken.</param>
/// <param name="Done">The folder that what was taken is moved to; empty to leave it, marked as read.</param>
/// <param name="SetAside">The folder that what cannot be taken is moved to; empty to leave it, flagged.</param>
/// <param name="Answer">What senders are told; null if they are told nothing.</param>
public sealed record MailboxSource(
    string Host, int Port, MailEncryption Encryption, string User, string Password, bool IsToken, string Folder, ImmutableArray<MailRule> Rules, string Done, string SetAside, MailAnswer? Answer) : SourceWay
{
    /// <summary>How access tokens are had; null for a password, and for a token that somebody keeps.</summary>
    public TokenRenewal? Renewal { get; init; }

    public override string Word => "mailbox";

    public override string Place => $"{User} at {Host}:{Port}, {Folder}";

    public override IEnumerable<string> Secrets => [.. Renewal?.Secrets ?? [Password], .. Answer?.Line.Secrets ?? []];

    public override ImmutableArray<string> Says =>
    [
        $"Invoices attached to messages in {Folder} of {User} at {Host}:{Port} are taken in{(Encryption == MailEncryption.None ? ", over a line that is not encrypted" : "")}; each message is kept as it came.",
        .. Renewal is { } renewal ? [$"Its server is shown access tokens, which are renewed at {renewal.Url.GetLeftPart(UriPartial.Path)} before they end."] : Array.Empty<string>(),
        .. Rules.Select((rule, index) => $"Rule {index + 1}: {rule.Says}."),
        .. Answer is { } answer ? [$"Whoever sent one is told once what became of it, by {answer.Line.Host}:{answer.Line.Port} from {answer.Line.From}{(answer.Attached == AnswerTable.None ? "" : ", with the captured rows")}; a program that sends by itself is told nothing."] : Array.Empty<string>(),
        $"A message that was taken is {(Done.Length > 0 ? $"moved to {Done}" : "marked as read")}, one that holds no invoice {(SetAside.Length > 0 ? $"is moved to {SetAside}" : "is flagged")}.",
    ];

    /// <summary>The first rule that fits; null if none does.</summary>
    public MailRule? RuleFor(MailFacts message) => Rules.FirstOrDefault(rule => rule.Fits(message));
}
