using System.Globalization;

namespace Daxlin.Core.History;

/// <summary>The names of the streams in which the history is told: one for each thing that is decided on.</summary>
/// <remarks>Each stream is a chain of its own, so that acts on different invoices need not wait for each other.</remarks>
public static class HistoryStreams
{
    /// <summary>Seals over what all streams had gained; see <see cref="HistoryChain"/>.</summary>
    public const string Seals = "seals";

    public static string Invoice(int id) => "invoice/" + Text(id);

    public static string Batch(int id) => "batch/" + Text(id);

    public static string Vendor(int id) => "vendor/" + Text(id);

    public static string Person(int id) => "person/" + Text(id);

    public static string Template(string name) => "template/" + name;

    public static string PostingRun(int number) => "posting-run/" + Text(number);

    public static string Layout(string name) => "layout/" + name;

    public static string List(string name) => "list/" + name;

    public static string Receiver(string name) => "receiver/" + name;

    public static string Source(string name) => "source/" + name;

    public static string Schedule(string name) => "schedule/" + name;

    public const string Coding = "coding-rules";

    public const string ClosedPeriods = "closed-periods";

    public const string Secrets = "secrets";

    /// <summary>Sign-ins under names that nobody has.</summary>
    public const string SignIns = "sign-ins";

    public const string ApprovalRules = "approval-rules";

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
