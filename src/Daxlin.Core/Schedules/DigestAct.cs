using System.Collections.Immutable;

namespace Daxlin.Core.Schedules;

/// <summary>Tells some people by mail what waits for a person.</summary>
/// <param name="Receiver">The receiver, one by mail, that says by which server it goes and to whom.</param>
/// <param name="Subject">With <see cref="DigestText.Names"/> in braces.</param>
/// <param name="EvenIfNothing">Says that it is sent when nothing waits, too.</param>
public sealed record DigestAct(string Receiver, string Subject, bool EvenIfNothing) : ScheduledAct
{
    public const string UsualSubject = "{held} to look at, {approved} to be posted";

    public override string Word => "digest";

    public override ImmutableArray<string> Says =>
    [
        $"A message goes to whom the receiver “{Receiver}” names: what is held and why, what is to be approved and to be posted, and what stands still.",
        EvenIfNothing ? "It is sent when nothing waits, too." : "When nothing waits, none is sent.",
    ];
}
