using System.IO.Enumeration;

namespace Daxlin.Core.Sources;

/// <summary>What is done with messages of a kind.</summary>
/// <param name="From">What the sender's address looks like, with <c>*</c>; empty for any.</param>
/// <param name="To">The same for one of those it was sent to.</param>
/// <param name="Subject">Words that stand in the subject; empty for any.</param>
/// <param name="HasAttachment">Whether something must be attached, or must not; null for either.</param>
/// <param name="IsLeft">Whether it is left alone.</param>
/// <param name="IsAnswered">Whether its sender is told what became of it, where the source tells senders.</param>
/// <param name="Batch">Into which batch its invoices go; null for the source's.</param>
/// <param name="Template">The template that they are for; empty for the source's.</param>
public sealed record MailRule(string From, string To, string Subject, bool? HasAttachment, bool IsLeft, bool IsAnswered, BatchNaming? Batch, string Template)
{
    public bool Fits(MailFacts message) =>
        (From.Length == 0 || message.From.Any(address => IsLike(From, address)))
        && (To.Length == 0 || message.To.Any(address => IsLike(To, address)))
        && (Subject.Length == 0 || message.Subject.Contains(Subject, StringComparison.OrdinalIgnoreCase))
        && (HasAttachment is not { } has || has == message.HasAttachment);

    public string Says
    {
        get
        {
            string[] conditions =
            [
                .. From.Length > 0 ? [$"from {From}"] : Array.Empty<string>(),
                .. To.Length > 0 ? [$"to {To}"] : Array.Empty<string>(),
                .. Subject.Length > 0 ? [$"with “{Subject}” in the subject"] : Array.Empty<string>(),
                .. HasAttachment is { } has ? [has ? "with something attached" : "with nothing attached"] : Array.Empty<string>(),
            ];
            return $"a message {(conditions.Length == 0 ? "of any kind" : string.Join(" and ", conditions))} is {(IsLeft ? "left alone" : Batch is { } batch ? $"taken into the batch {batch.Says}" : "taken")}{(Template.Length > 0 ? $", for the template “{Template}”" : "")}{(IsLeft || IsAnswered ? "" : ", and not answered")}";
        }
    }

    private static bool IsLike(string pattern, string address) => FileSystemName.MatchesSimpleExpression(pattern, address, ignoreCase: true);
}
