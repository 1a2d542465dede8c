namespace Palaestra.Server.Serving;

/// <summary>What is too large for the memory on its way in or out.</summary>
public static class PassingFile
{
    /// <summary>An empty file on the disk that nobody else on the machine can read, gone when it is closed.</summary>
    public static FileStream New() =>
        new(
            Path.Combine(Path.GetTempPath(), Path.GetRandomFileName()),
            new FileStreamOptions
            {
                Mode = FileMode.CreateNew,
                Access = FileAccess.ReadWrite,
                Options = FileOptions.DeleteOnClose | FileOptions.Asynchronous,
                UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite,
            }
        );

    /// <summary>One that was filled, from its beginning; gone too where it could not be.</summary>
    public static async Task<FileStream> Filled(Func<Stream, Task> fill)
    {
        var file = New();
        try
        {
            await fill(file);
            file.Position = 0;
            return file;
        }
        catch
        {
            await file.DisposeAsync();
            throw;
        }
    }
}
