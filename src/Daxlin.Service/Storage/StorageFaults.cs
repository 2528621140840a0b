using Microsoft.Data.Sqlite;
using Npgsql;

namespace Daxlin.Service.Storage;

/// <summary>What the faults of disks and databases mean to the operator.</summary>
/// <remarks>Codes of SQLite are those of https://www.sqlite.org/rescode.html; of PostgreSQL those of appendix A of its manual; of Linux those of errno(3).</remarks>
internal static class StorageFaults
{
    private const int SqliteBusy = 5, SqliteReadOnly = 8, SqliteIoError = 10, SqliteCorrupt = 11, SqliteFull = 13, SqliteCantOpen = 14, SqliteNotADatabase = 26;
    private const int SqliteIoErrorWrite = 778, SqliteIoErrorSharedMemory = 4874;
    /// <summary>The database's server cannot be reached.</summary>
    public const string Away = "database-away";
    private const string ServerFull = "database-full";
    private const string ReadOnly = "database-read-only";
    private const string Refused = "database-refused";

    public const int NoSpace = 28;
    private const int QuotaExceeded = 122;

    /// <summary>Null for a fault that is none of storage.</summary>
    public static (int Status, string Code, string Sentence)? Of(Exception? error)
    {
        for (var one = error; one is not null; one = one.InnerException)
        {
            switch (one)
            {
                case StorageException storage:
                    return (StatusCodes.Status507InsufficientStorage, storage.Code, storage.Message);
                case SqliteException { SqliteErrorCode: SqliteFull }:
                case SqliteException { SqliteExtendedErrorCode: SqliteIoErrorWrite or SqliteIoErrorSharedMemory }:
                case IOException { HResult: NoSpace or QuotaExceeded }:
                    return Full;
                case PostgresException { SqlState: PostgresErrorCodes.DiskFull }:
                    return (StatusCodes.Status507InsufficientStorage, ServerFull, "The disk of the database server is full: nothing was taken in and nothing was changed. What waits goes on by itself when there is room.");
                case PostgresException { SqlState: PostgresErrorCodes.ReadOnlySqlTransaction }:
                    return (StatusCodes.Status503ServiceUnavailable, ReadOnly, "The database server takes no changes at the moment. Nothing was changed.");
                case PostgresException { SqlState: PostgresErrorCodes.InvalidPassword or PostgresErrorCodes.InvalidAuthorizationSpecification or PostgresErrorCodes.InvalidCatalogName or PostgresErrorCodes.InsufficientPrivilege } refused:
                    return (StatusCodes.Status503ServiceUnavailable, Refused, $"The database server refuses Daxlin: {refused.MessageText}. Nothing was changed.");
                case PostgresException { SqlState: ['0', '8', ..] or ['5', '7', 'P', ..] or PostgresErrorCodes.TooManyConnections }:
                case NpgsqlException { InnerException: System.Net.Sockets.SocketException or IOException or TimeoutException }:
                    return (StatusCodes.Status503ServiceUnavailable, Away, "The database server cannot be reached. Nothing was changed that was not confirmed; what waits goes on by itself when it answers again.");
                case SqliteException { SqliteErrorCode: SqliteCorrupt or SqliteNotADatabase }:
                    return (StatusCodes.Status503ServiceUnavailable, "database-damaged",
                        "The database is damaged: it cannot be read any more. Stop the service and restore the data folder from a backup; the documents are kept.");
                case SqliteException { SqliteErrorCode: SqliteReadOnly or SqliteCantOpen }:
                case UnauthorizedAccessException:
                    return (StatusCodes.Status503ServiceUnavailable, "folder-read-only", "The data folder cannot be written; its owner or its disk's state forbids it. Nothing was changed.");
                case SqliteException { SqliteErrorCode: SqliteBusy }:
                    return (StatusCodes.Status503ServiceUnavailable, "database-busy", "The database is held by another program; try again.");
                case SqliteException { SqliteErrorCode: SqliteIoError }:
                    return (StatusCodes.Status503ServiceUnavailable, "disk-faulty", "The disk of the data folder failed on a read or write. Nothing was changed.");
            }
        }
        return null;
    }

    /// <summary>Says that a fault goes by itself once there is room on the disk.</summary>
    public static bool IsFull(Exception error) => Of(error) is { Code: "disk-full" };

    /// <summary>Says that a trouble is with the database's server and over once that takes a change again.</summary>
    public static bool IsOverWithChange(string code) => code is Away or ServerFull or ReadOnly or Refused;

    /// <summary>Says that a text has a character that a server's texts cannot have, U+0000: the fault of who sent it.</summary>
    public static bool IsUnstorable(Exception? error)
    {
        for (var one = error; one is not null; one = one.InnerException)
        {
            if (one is PostgresException { SqlState: PostgresErrorCodes.CharacterNotInRepertoire or PostgresErrorCodes.UntranslatableCharacter })
                return true;
        }
        return false;
    }

    private static (int, string, string) Full => (StatusCodes.Status507InsufficientStorage, "disk-full",
        "The disk of the data folder is full: nothing was taken in and nothing was changed. What waits goes on by itself when there is room.");
}
