using System.Collections.Immutable;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Backups;

/// <summary>What a backup holds, as it stands beside it. Written last: a folder without it is no whole backup.</summary>
/// <param name="At">When it was made: what was stored before is in it.</param>
/// <param name="Rows">How many rows each table has.</param>
/// <param name="Documents">How many documents there are, byte for byte.</param>
/// <param name="Bytes">How many bytes they have together.</param>
/// <param name="DatabaseSha256">Of the file that the database is.</param>
/// <param name="NewestSeal">Of the history; what an auditor has noted down before can be looked up in it.</param>
/// <param name="Faults">What was missing or altered already when it was made; of a restored one, whatever a person should look at.</param>
internal sealed record Backup(
    DateTime At, ImmutableSortedDictionary<string, int> Rows, int Documents, long Bytes, string DatabaseSha256, string NewestSeal, ImmutableArray<DataFault> Faults)
{
    public const string FileName = "backup.json";
}
