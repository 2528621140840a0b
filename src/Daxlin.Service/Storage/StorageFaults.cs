using Microsoft.Data.Sqlite;

namespace Daxlin.Service.Storage;

/// <summary>What the faults of disks and databases mean to the operator.</summary>
/// <remarks>Codes of SQLite are those of https://www.sqlite.org/rescode.html; of Linux those of errno(3).</remarks>
internal static class StorageFaults
{
    private const int SqliteBusy = 5, SqliteReadOnly = 8, SqliteIoError = 10, SqliteCorrupt = 11, SqliteFull = 13, SqliteCantOpen = 14, SqliteNotADatabase = 26;
    private const int SqliteIoErrorWrite = 778, SqliteIoErrorSharedMemory = 4874;
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

    private static (int, string, string) Full => (StatusCodes.Status507InsufficientStorage, "disk-full",
        "The disk of the data folder is full: nothing was taken in and nothing was changed. What waits goes on by itself when there is room.");
}
