'use client';
import { CloseOutlined } from '@ant-design/icons';
import { Button, Form } from 'antd';
import type { DropzoneState } from 'react-dropzone';
import styles from './prepare.module.css';

/** A photo that is to hang beside the painting. */
export interface HungPhoto {
  readonly id: string;
  readonly name: string;
  readonly blob: Blob;
  readonly url: string;
}

/** Photos that will hang beside the easel. */
export function PhotosSection({
  photos,
  drop,
  takeDown,
}: {
  photos: readonly HungPhoto[];
  drop: DropzoneState;
  takeDown: (photo: HungPhoto) => void;
}) {
  return (
    <Form.Item label="Photos">
      <input {...drop.getInputProps({ accept: 'image/*', 'aria-label': 'Photo files' })} />
      <div className={styles.photos}>
        {photos.map((photo) => (
          <figure key={photo.id} className={styles.photo}>
            {/* eslint-disable-next-line @next/next/no-img-element -- a picture from memory */}
            <img src={photo.url} alt={photo.name} />
            <Button
              size="small"
              icon={<CloseOutlined />}
              aria-label={`Take down ${photo.name}`}
              onClick={() => takeDown(photo)}
            />
          </figure>
        ))}
        <button type="button" className={styles.hang} onClick={drop.open}>
          Hang up a photo
          <span className="quiet">or drop it anywhere here</span>
        </button>
      </div>
    </Form.Item>
  );
}
