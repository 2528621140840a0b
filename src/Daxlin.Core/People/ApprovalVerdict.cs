namespace Daxlin.Core.People;

/// <summary>Whether a person's approval of an invoice counts, and whether it is enough.</summary>
/// <param name="Refusal">Why it does not count; empty if it does.</param>
/// <param name="WhySecond">Why another person has to approve, too; empty if that is not needed any more.</param>
public sealed record ApprovalVerdict(string Refusal, string WhySecond)
{
    public static ApprovalVerdict Enough { get; } = new("", "");

    public static ApprovalVerdict Refused(string sentence) => new(sentence, "");

    public static ApprovalVerdict First(string why) => new("", why);
}
