using System.Collections.Immutable;

namespace Daxlin.Core.Posting.Receivers;

/// <summary>A message with the files attached, by SMTP.</summary>
/// <param name="User">Empty for a server that asks for none.</param>
/// <param name="Password">Names the secret; empty where no user is named.</param>
/// <param name="Subject"><c>{run}</c> in it is the run's number.</param>
public sealed record MailWay(
    string Host, int Port, MailEncryption Encryption, string User, string Password, string From, ImmutableArray<string> To, string Subject) : ReceivingWay
{
    public override string Word => "mail";

    public override string Place => $"{string.Join(", ", To)} by {Host}:{Port}";

    public override string Says => $"One message with all its files goes from {From} to {Place}{(Encryption == MailEncryption.None ? ", not encrypted" : "")}.";

    public override IEnumerable<string> Secrets => Password.Length == 0 ? [] : [Password];
}
